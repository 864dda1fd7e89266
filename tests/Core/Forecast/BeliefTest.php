<?php

declare(strict_types=1);

namespace Verjuicer\Tests\Core\Forecast;

use PHPUnit\Framework\Attributes\DataProvider;
use PHPUnit\Framework\TestCase;
use Verjuicer\Core\Assess\Assessor;
use Verjuicer\Core\Food\Animal;
use Verjuicer\Core\Food\Form;
use Verjuicer\Core\Food\Holding;
use Verjuicer\Core\Food\Integrity;
use Verjuicer\Core\Forecast\Belief\Belief;
use Verjuicer\Core\Forecast\Belief\Beliefs;
use Verjuicer\Core\Forecast\Belief\Matrix;
use Verjuicer\Core\Forecast\Belief\Normal;
use Verjuicer\Core\Forecast\Belief\Odds;
use Verjuicer\Core\Measure\Weight;
use Verjuicer\Core\Record\RecordedProduct;
use Verjuicer\Tests\Core\Story;

/** What readings let believe: against meat by another method, and what must be so of any belief. */
final class BeliefTest extends TestCase
{
    private const SEED = 1207;

    /**
     * Cooks of slabs, cylinders and balls that dry by time, which the belief does not know of: readings to a degree
     * Fahrenheit every half an hour or so, each looked at early, midway and late.
     */
    public function testRangesHoldAndAreOfUse(): void
    {
        mt_srand(self::SEED);
        $looks = $held = 0;
        $widths = [];
        for ($cook = 0; $cook < 14; ++$cook) {
            [$story, $done, $target] = $this->cooked();
            foreach ([0.3, 0.6, 0.85] as $part) {
                $asOf = (int) ($part * $done);
                $odds = $this->odds($story, $asOf, $target);
                [$earliest, $latest] = [$odds->by(0.05), $odds->by(0.95)];
                $true = Story::at((string) $done)->epoch;
                ++$looks;
                $held += (int) ($earliest <= $true && ($latest === null || $true <= $latest));
                $widths[] = (($latest ?? \PHP_INT_MAX) - (int) $earliest) / ($true - Story::at((string) $asOf)->epoch);
            }
        }
        sort($widths);
        self::assertGreaterThanOrEqual(0.85 * $looks, $held, "$held of $looks held");
        self::assertLessThan(1.3, $widths[intdiv(\count($widths), 2)], 'of what was left, in the middle');
    }

    /** @return array{list<string>, int, float} what was written down, the minute it was done, and °C it was done at */
    private function cooked(): array
    {
        $between = static fn (float $least, float $most): float => $least
            + (($most - $least) * mt_rand()) / mt_getrandmax();
        $shape = mt_rand(0, 2);
        $radius = $between(0.03, 0.05);
        $meat = new Meat($shape, $radius, $between(3, 7), $between(0.03, 0.15));
        [$pit, $transfer, $dries] = [$between(110, 135), $between(12, 22), $between(1, 3) * 3600];
        $story = ['0 cook set='.(int) round($pit * 1.8 + 32)];
        $next = 20;
        $minute = 0;
        while ($meat->core() < 90.0) {
            ++$minute;
            $meat->stay(60, $pit, $transfer, $dries);
            if ($minute >= $next) {
                $story[] = "$minute ".(int) round(($meat->core() + $between(-0.4, 0.4)) * 1.8 + 32);
                $next = $minute + mt_rand(20, 45);
            }
        }

        return [$story, $minute, 90.0];
    }

    public function testTheMoreIsReadTheNarrowerItIsAndItIsAlwaysTheSame(): void
    {
        $story = ['0 cook set=250', '60 61', '120 98', '180 127', '240 146', '300 156', '360 165', '420 175'];
        $widths = [];
        foreach (['10', '125', '305', '425'] as $asOf) {
            $odds = $this->odds($story, (int) $asOf, 90.0);
            self::assertEquals($odds, $this->odds($story, (int) $asOf, 90.0));
            $widths[] = (int) $odds->by(0.95) - (int) $odds->by(0.05);
        }
        self::assertSame($widths, array_reverse([...self::sorted($widths)]), implode(' ', $widths));
    }

    public function testWhatWasDoneToItRawChangesNothing(): void
    {
        $cook = ['0 cook set=250', '60 71', '120 108', '165 138', '210 154'];
        $raw = ['-900 received', '-890 38', '-880 cold_hold place=walk-in', '-60 prep', '-50 39', '-40 season'];
        self::assertEquals($this->odds($cook, 215, 90.6), $this->odds([...$raw, ...$cook], 215, 90.6));
    }

    public function testWhatIsCutOnTheCounterFallsAsOnTheCounter(): void
    {
        $story = ['0 cook set=250', '60 90', '120 140', '180 160', '200 rest method=towels', '210 160', '230 156'];
        $rests = $this->odds($story, 245, 57.2, isRising: false)->by(0.5);
        $cut = $this->odds([...$story, '240 prep'], 245, 57.2, isRising: false)->by(0.5);
        self::assertLessThan($rests, $cut);
    }

    public function testOnePieceSaysSomethingOfTheOthers(): void
    {
        $others = ['165 134 p2', '166 136 p3'];
        $read = ['0 cook set=250', '60 71', '90 89', '120 108', '163 135'];
        $alone = $this->odds(['0 cook set=250', ...$others], 170, 90.6, track: '2/core');
        $beside = $this->odds([...$read, ...$others], 170, 90.6, track: '2/core');
        self::assertLessThan(
            (int) $alone->by(0.95) - (int) $alone->by(0.05),
            (int) $beside->by(0.95) - (int) $beside->by(0.05),
        );
    }

    /** @param list<string> $plan */
    #[DataProvider('plans')]
    public function testWhatIsPlannedIsInTheCourse(int $sign, array $plan): void
    {
        $story = ['0 cook set=225', '60 58', '120 92', '180 118', '240 135', '300 146'];
        $without = $this->odds($story, 305, 93.0)->by(0.5);
        $with = $this->odds($story, 305, 93.0, $plan)->by(0.5);
        self::assertSame($sign, $with <=> $without);
    }

    /** @return iterable<string, array{int, list<string>}> */
    public static function plans(): iterable
    {
        $late = Story::at('400')->rfc3339();
        $past = Story::at('200')->rfc3339();
        yield 'a wrap at a temperature' => [-1, ['{"type":"wrap","temp":{"f":165},"with":"foil"}']];
        yield 'the pit turned up at a time' => [-1, ['{"type":"pit_set","at":"'.$late.'","set":{"f":300}}']];
        yield 'the pit turned up when it is so warm' => [-1, ['{"type":"pit_set","temp":{"c":70},"set":{"c":150}}']];
        yield 'the pit turned down' => [1, ['{"type":"pit_set","at":"'.$late.'","set":{"f":205}}']];
        yield 'what was missed' => [0, ['{"type":"pit_set","at":"'.$past.'","set":{"f":300}}']];
        yield 'what is not understood' => [
            0,
            ['{"type":"wrap"}', '{"type":"dance","temp":{"f":165}}', '{"type":"pit_set","temp":{"f":165}}', '7'],
        ];
        yield 'when it comes off' => [0, ['{"type":"off","temp":{"f":203}}']];
    }

    /**
     * @param array{Holding, float|null, bool, float|null} $faster where, m deep, covered, and °C of the air
     * @param array{Holding, float|null, bool, float|null} $slower
     */
    #[DataProvider('pairs')]
    public function testWhatCoolsSlowerIsBelievedToCoolSlower(array $faster, array $slower): void
    {
        $by = static fn (array $way): int => self::cooling(...$way)->crossing(21.1, false, 48 * 3600)->by(0.5)
            ?? \PHP_INT_MAX;
        self::assertLessThan($by($slower), $by($faster));
    }

    /** @return iterable<string, list<array{Holding, float|null, bool, float|null}>> */
    public static function pairs(): iterable
    {
        $pans = Holding::ShallowPans;
        yield 'deeper' => [[$pans, 0.03, false, null], [$pans, 0.06, false, null]];
        yield 'covered' => [[$pans, 0.05, false, null], [$pans, 0.05, true, null]];
        yield 'in a warmer room' => [[$pans, 0.05, false, 1.0], [$pans, 0.05, false, 8.0]];
        yield 'a chiller beats a walk-in' => [[Holding::BlastChiller, 0.05, false, null], [$pans, 0.05, false, null]];
        yield 'ice beats a walk-in' => [[Holding::IceBath, 0.05, false, null], [$pans, 0.05, false, null]];
        yield 'a thin layer beats the whole' => [[$pans, 0.05, false, null], [Holding::WalkIn, null, false, null]];
        yield 'a counter never gets there' => [[$pans, 0.05, false, null], [Holding::Counter, 0.05, false, 24.0]];
    }

    public function testMatricesAndNormalNumbers(): void
    {
        $root = Matrix::root([[4.0], [2.0, 5.0], [0.6, 1.1, 3.0]]);
        $x = Matrix::backward($root, Matrix::forward($root, [1.0, -2.0, 0.5]));
        foreach ([[4.0, 2.0, 0.6], [2.0, 5.0, 1.1], [0.6, 1.1, 3.0]] as $row => $columns) {
            $sum = 0.0;
            foreach ($columns as $column => $value) {
                $sum += $value * $x[$column];
            }
            self::assertEqualsWithDelta([1.0, -2.0, 0.5][$row], $sum, 1e-12);
        }
        self::assertEqualsWithDelta(1.644854, Normal::quantile(0.95), 1e-6);
        self::assertEqualsWithDelta(-2.326348, Normal::quantile(0.01), 1e-6);
        self::assertEqualsWithDelta(0.0, Normal::quantile(0.5), 1e-9);
        $all = new Odds([[300, 1.0], [100, 2.0], [null, 1.0]]);
        self::assertSame([100, 300, null], [$all->by(0.5), $all->by(0.6), $all->by(0.9)]);
        self::assertEqualsWithDelta(0.5, $all->after(200), 1e-9);
        self::assertSame(300, Odds::slowest([$all, new Odds([[300, 1.0]])])?->by(0.2));
    }

    private static function cooling(Holding $holding, ?float $depth, bool $isCovered, ?float $around): Belief
    {
        $product = new RecordedProduct(
            'Lamb shoulder',
            Animal::Lamb,
            Form::Cut,
            Integrity::Intact,
            Weight::ofGrams(2500),
            1,
        );

        return Beliefs::ahead($product, $holding, 60.0, $around, $depth, $isCovered, 1_780_000_000, 1610);
    }

    /**
     * @param list<string> $story
     * @param list<string> $plan
     */
    private function odds(
        array $story,
        int $asOf,
        float $target,
        array $plan = [],
        string $track = '1/core',
        bool $isRising = true,
    ): Odds {
        $record = json_decode(Story::of(...$story)->about('pork cut 3pieces')->json(), true);
        self::assertIsArray($record);
        $record['plan'] = array_map(static fn (string $one): mixed => json_decode($one), $plan);
        $read = Story::reader()->read((string) json_encode($record));
        $assessment = (new Assessor())->assess($read, Story::rules(), Story::at((string) $asOf));
        $belief = Beliefs::of($assessment, 1)->ofTrack($track);
        self::assertNotNull($belief);

        return $belief->crossing($target, $isRising, 60 * 3600);
    }

    /**
     * @param list<int> $of
     *
     * @return list<int>
     */
    private static function sorted(array $of): array
    {
        sort($of);

        return $of;
    }
}
