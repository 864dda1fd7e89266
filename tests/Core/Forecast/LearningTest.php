<?php

declare(strict_types=1);

namespace Verjuicer\Tests\Core\Forecast;

use PHPUnit\Framework\Attributes\DataProvider;
use PHPUnit\Framework\TestCase;
use Verjuicer\Core\Assess\Assessment;
use Verjuicer\Core\Assess\Assessor;
use Verjuicer\Core\Forecast\Belief\LearnedParameters;
use Verjuicer\Core\Forecast\Belief\ParameterSample;
use Verjuicer\Core\Forecast\CookOutlook;
use Verjuicer\Core\Forecast\FallOutlook;
use Verjuicer\Core\Forecast\Learning\BatchReplay;
use Verjuicer\Core\Forecast\Learning\LearnedSample;
use Verjuicer\Core\Forecast\Learning\LearningSubject;
use Verjuicer\Core\Measure\Temperature;
use Verjuicer\Tests\Core\Story;

/** What own cooks teach, and what a forecast makes of it. */
final class LearningTest extends TestCase
{
    /** @return iterable<string, array{list<array{float, float}>, array{float, float}|null}> */
    public static function shown(): iterable
    {
        yield 'two are too few' => [[[1.0, 1.0], [1.0, 1.0]], null];
        yield 'three of which one says nothing are too few' => [[[1.0, 1.0], [1.0, 1.0], [0.0, 0.05]], null];
        yield 'three that agree count more than the two of what is usual' => [
            [[1.0, 1.0], [1.0, 1.0], [1.0, 1.0]],
            [0.6, 0.5477],
        ];
        yield 'what is drawn towards the usual is put back' => [[[0.5, 0.5], [0.5, 0.5], [0.5, 0.5]], [0.4286, 0.7171]];
        yield 'an odd one changes nothing in the middle' => [
            [[1.0, 1.0], [1.0, 1.0], [1.0, 1.0], [-2.4, 1.0], [1.0, 1.0]],
            [0.7143, 0.6172],
        ];
        yield 'nothing is believed beyond what can be' => [[[9.0, 1.0], [9.0, 1.0], [9.0, 1.0]], [1.5, 0.5477]];
        yield 'many that agree leave something open' => [array_fill(0, 40, [0.5, 1.0]), [0.4762, 0.35]];
    }

    /**
     * @param list<array{float, float}> $shown
     * @param array{float, float}|null $expected
     */
    #[DataProvider('shown')]
    public function testTheMiddleOfWhatCooksShowAndHowFarTheyAreApart(array $shown, ?array $expected): void
    {
        $cooks = array_map(static fn (array $one): array => [ParameterSample::BIAS => $one], $shown);
        $learned = LearnedParameters::of($cooks);
        self::assertEqualsWithDelta($expected, $learned->unknowns[ParameterSample::BIAS] ?? null, 0.01);
        shuffle($cooks);
        self::assertEquals($learned, LearnedParameters::of($cooks), 'in whatever order they come');
    }

    public function testAWayToRestMovesTheMiddleAndNarrowsNothing(): void
    {
        self::assertFalse(LearningSubject::Method->narrows());
        self::assertTrue(LearningSubject::Pit->narrows() && LearningSubject::Product->narrows());
        $learned = new LearnedParameters([ParameterSample::REST_TRANSFER => [0.4, 0.5]]);
        self::assertSame([ParameterSample::REST_TRANSFER => [0.4, 1.0]], $learned->asWide()->unknowns);
    }

    public function testABatchTeachesOnceItIsOverAndAlwaysTheSame(): void
    {
        $running = $this->cook(20.0, until: 160);
        self::assertSame([], (new BatchReplay(new Assessor()))->of($running), 'on the heat it teaches nothing yet');
        $over = $this->cook(20.0);
        $lessons = (new BatchReplay(new Assessor()))->of($over);
        self::assertSame(
            ['product Lamb shoulder', 'pit Drum', 'method rack'],
            array_map(static fn (LearnedSample $one): string => $one->of->value.' '.$one->subject, $lessons),
        );
        self::assertEquals($lessons, (new BatchReplay(new Assessor()))->of($over));
        foreach ($lessons as $lesson) {
            self::assertSame([], array_diff(array_keys($lesson->shown), $lesson->of->unknowns()));
            foreach ($lesson->shown as [, $said]) {
                self::assertGreaterThanOrEqual(0.0, $said);
                self::assertLessThanOrEqual(1.0, $said);
            }
        }
        self::assertSame(
            [],
            (new BatchReplay(new Assessor()))->of($this->cook(20.0, readings: 1)),
            'too little was read',
        );
    }

    /** A pit that is far warmer at the meat than it says: six cooks tell, and the next is foreseen better. */
    public function testAForecastBeforeAnythingIsReadComesNearerByOwnCooks(): void
    {
        $lessons = new BatchReplay(new Assessor());
        $shown = [];
        for ($cook = 0; $cook < 6; ++$cook) {
            foreach ($lessons->of($this->cook(14.0 + $cook)) as $lesson) {
                $shown[$lesson->of->value][] = $lesson->shown;
            }
        }
        $learned = new LearnedParameters();
        foreach ($shown as $of) {
            $learned = $learned->with(LearnedParameters::of($of));
        }
        $unread = $this->cook(16.0, until: 20, readings: 0);
        $target = Temperature::fahrenheit('195');
        $usual = CookOutlook::of($unread, $target)?->window;
        $own = CookOutlook::of($unread, $target, [], $learned)?->window;
        self::assertNotNull($usual?->likely);
        self::assertNotNull($own?->likely);
        $begun = Story::at('0')->epoch;
        $done = $begun + 60 * self::done($this->meat(16.0));
        self::assertLessThan(abs($usual->likely->epoch - $done), abs($own->likely->epoch - $done));
        $width = static fn ($window): int => ($window->latest->epoch ?? \PHP_INT_MAX) - $window->earliest->epoch;
        self::assertLessThan($width($usual), $width($own));
        self::assertGreaterThanOrEqual($own->earliest->epoch, $done);
        self::assertLessThanOrEqual($own->latest->epoch ?? \PHP_INT_MAX, $done);
        self::assertEquals(
            $usual,
            CookOutlook::of($unread, $target, [], new LearnedParameters())?->window,
            'nothing learned',
        );
        // Off the heat, what its pit taught says as little as what was read there.
        $resting = $this->cook(16.0, rest: 30);
        $falls = [FallOutlook::of($resting), FallOutlook::of($resting, $learned)];
        self::assertNotNull($falls[0]);
        self::assertNotNull($falls[1]);
        self::assertNotEquals($falls[0]->hot, $falls[1]->hot, 'how it rests here counts');
    }

    /** How thick pieces are beside their weight says nothing of one that was measured, or never weighed. */
    public function testHowThickItActsIsHeardOnlyWhereItsWeightIsWhatIsKnown(): void
    {
        $thick = new LearnedParameters([ParameterSample::HALF => [1.5, 0.5], ParameterSample::SHAPE => [0.5, 0.5]]);
        $target = Temperature::fahrenheit('195');
        $lines = ['0 cook oven=convection set=225', '60 70', '120 100'];
        $isHeard = [];
        foreach (['2.3kg', '2.3kg measured', ''] as $known) {
            $story = Story::of(...$lines)->about(trim('lamb roast '.strtok($known, ' ')));
            $story = str_contains($known, 'measured') ? $story->with('thickness_mm', 80) : $story;
            $assessment = $story->assess('125');
            $windows = [CookOutlook::of($assessment, $target), CookOutlook::of($assessment, $target, [], $thick)];
            $isHeard[$known] = serialize($windows[0]?->window) !== serialize($windows[1]?->window);
        }
        self::assertSame(['2.3kg' => true, '2.3kg measured' => false, '' => false], $isHeard);
    }

    public function testWhatItIsOfIsAskedByWhereItIsNow(): void
    {
        self::assertSame(
            ['product' => 'Lamb shoulder', 'pit' => 'Drum'],
            BatchReplay::subjects($this->cook(20.0, until: 60)),
        );
        self::assertSame(
            ['product' => 'Lamb shoulder', 'pit' => 'Drum', 'method' => 'rack'],
            BatchReplay::subjects($this->cook(20.0, rest: 20)),
        );
    }

    public function testThicknessSomebodyMeasuredIsNoLesson(): void
    {
        $lessons = (new BatchReplay(new Assessor()))->of($this->cook(20.0, thickness: 80));
        self::assertArrayNotHasKey(ParameterSample::HALF, $lessons[0]->shown);
        self::assertArrayHasKey(
            ParameterSample::HALF,
            (new BatchReplay(new Assessor()))->of($this->cook(20.0))[0]->shown,
        );
        self::assertSame(LearningSubject::Product, $lessons[0]->of);
    }

    /** By the minute, °C: cooked in air so much warmer than 107 °C, then on a rack. */
    private function meat(float $warmer): Meat
    {
        return new Meat(Meat::CYLINDER, 0.045 + $warmer / 20_000, 5.0, 0.25);
    }

    private static function done(Meat $meat): int
    {
        $minute = 0;
        for (; $meat->core() < 90.6 && $minute < 2000; ++$minute) {
            $meat->stay(60.0, 107.0 + 16.0, 17.0, 9000.0);
        }

        return $minute;
    }

    private function cook(
        float $warmer,
        ?int $until = null,
        int $readings = 100,
        ?int $rest = null,
        ?int $thickness = null,
    ): Assessment {
        $meat = $this->meat($warmer);
        $lines = ['0 cook oven=convection set=225 pit=Drum'];
        $read = 0;
        $minute = 1;
        for (; $meat->core() < 90.6 && $minute < ($until ?? 2000); ++$minute) {
            $meat->stay(60.0, 107.0 + $warmer, 17.0, 9000.0);
            if ($minute % 30 === 0 && $read++ < $readings) {
                $lines[] = \sprintf('%d %d', $minute, round($meat->core() * 1.8 + 32));
            }
        }
        $end = $minute;
        if ($until === null) {
            $lines[] = "$minute rest holding=rack";
            $meat->wetness = 0.0;
            $last = $minute + ($rest ?? 120);
            for (++$minute; $minute <= $last; ++$minute) {
                $meat->stay(60.0, 22.0, 9.0);
                if (($minute - $end) % 10 === 0 && $readings > 1) {
                    $lines[] = \sprintf('%d %d', $minute, round($meat->core() * 1.8 + 32));
                }
            }
            $end = $last;
            if ($rest === null) {
                $lines[] = (++$end).' serve';
            }
        }
        $story = Story::of(...$lines)->about('lamb roast 2.3kg')->with('name', 'Lamb shoulder');

        return ($thickness === null ? $story : $story->with('thickness_mm', $thickness))->assess((string) $end);
    }
}
