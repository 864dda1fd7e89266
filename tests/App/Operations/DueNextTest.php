<?php

declare(strict_types=1);

namespace Verjuicer\Tests\App\Operations;

use PHPUnit\Framework\Attributes\DataProvider;
use PHPUnit\Framework\TestCase;
use Verjuicer\App\Operations\Board\LanePicture;
use Verjuicer\App\Operations\Due\Due;
use Verjuicer\App\Operations\Due\DueLine;
use Verjuicer\App\Operations\Due\DueLines;
use Verjuicer\App\Operations\Due\DueNext;
use Verjuicer\App\Platform\Picture\TimeAxis;
use Verjuicer\App\Platform\Wording\MeasureFormatter;
use Verjuicer\App\Projection\Lane\Lane;
use Verjuicer\App\Projection\Lane\LaneFacts;
use Verjuicer\Core\Forecast\CookOutlook;
use Verjuicer\Core\Forecast\FallOutlook;
use Verjuicer\Core\Measure\Temperature;
use Verjuicer\Core\Measure\TemperatureUnit;
use Verjuicer\Core\Measure\TimeZone;
use Verjuicer\Tests\Core\Story;

/**
 * The board is a projection: what it packs of an assessment it unpacks, draws and lists, soonest first, and nothing
 * that waits is left out.
 */
final class DueNextTest extends TestCase
{
    /**
     * @param list<string> $expected
     * @param array<int, list<string>> $batches by tag
     * @param array<string, int> $intervals
     */
    #[DataProvider('boards')]
    public function testListsWhatIsDueSoonestFirst(
        array $expected,
        array $batches,
        string $asOf,
        array $intervals = [],
    ): void {
        $lanes = [];
        foreach ($batches as $tag => $lines) {
            $lanes[] = self::lane($tag, $lines, $asOf);
        }
        $dues = (new DueNext(new MeasureFormatter()))->of(
            $lanes,
            Story::at($asOf),
            TemperatureUnit::Fahrenheit,
            $intervals,
        );
        self::assertSame(
            $expected,
            array_map(
                static fn (Due $due): string => trim(
                    \sprintf(
                        '%d %s%s%s%s',
                        $due->lane->tag,
                        $due->message,
                        $due->deadline === null
                            ? ' now'
                            : ' '.intdiv($due->deadline->epoch - Story::at('0')->epoch, 60),
                        $due->isLate && $due->deadline !== null ? ' late' : '',
                        $due->more > 0 ? ' +'.$due->more : '',
                    ),
                ),
                $dues,
            ),
        );
    }

    public function testWhatIsOneThingIsOneLine(): void
    {
        $cooling = ['-300 cook', '-100 170', '0 cool method=shallow+pans', '0 140', '30 128', '60 118'];
        $lanes = [
            self::lane(12, $cooling, '61'),
            self::lane(261, $cooling, '61', 'parent'),
            self::lane(262, $cooling, '61', 'parent'),
            self::lane(73, $cooling, '61', 'parent', true),
        ];
        $dues = (new DueNext(new MeasureFormatter()))->of($lanes, Story::at('61'), TemperatureUnit::Fahrenheit);
        $lines = DueLines::of($dues);
        self::assertSame(
            ['12', '73', '261, 262'],
            array_values(
                array_unique(
                    array_map(
                        static fn (DueLine $line): string => $line->tags(),
                        array_filter($lines, static fn (DueLine $line): bool => $line->due->rule === 'cool.stage1'),
                    ),
                ),
            ),
            'the same clock on two pans of one cut; a piece with a way of its own by itself',
        );
        $first = array_values(
            array_filter($lines, static fn (DueLine $line): bool => $line->due->rule === 'cool.stage1'),
        );
        self::assertCount(3, $first, 'a gate and its forecast are one thing');
        self::assertSame('limit', $first[0]->due->kind);
        self::assertCount(
            \count(array_filter($dues, static fn (Due $due): bool => $due->lane->tag === 12))
                - \count(
                    array_filter(
                        $dues,
                        static fn (Due $due): bool => $due->lane->tag === 12 && $due->kind === 'forecast',
                    ),
                ),
            array_filter($lines, static fn (DueLine $line): bool => $line->tags() === '12'),
            'and nothing else is lost',
        );
    }

    public function testWhatIsLateIsNeverFoldedAway(): void
    {
        $shown = static function (int $late): int {
            $lanes = array_map(
                static fn (int $tag): Lane => self::lane($tag, [($tag <= $late ? '0' : '60').' prep'], '70'),
                range(1, 14),
            );

            return DueLines::shown(
                DueLines::of(
                    (new DueNext(new MeasureFormatter()))->of($lanes, Story::at('70'), TemperatureUnit::Fahrenheit),
                ),
            );
        };
        self::assertSame([9, 9, 12], array_map($shown, [0, 9, 12]));
    }

    /**
     * @return iterable<string, array{0: list<string>, 1: array<int, list<string>>, 2: string, 3?: array<string, int>}>
     */
    public static function boards(): iterable
    {
        yield 'all quiet' => [[], [7 => ['0 prep', '5 discard']], '10'];
        yield 'the house clocks of two' => [
            ['8 due.house.house.prep_out 60', '7 due.house.house.prep_out 75'],
            [7 => ['15 prep'], 8 => ['0 prep']],
            '20',
        ];
        yield 'a late one is first' => [
            ['8 due.house.house.prep_out 60 late', '7 due.house.house.prep_out 75'],
            [7 => ['15 prep'], 8 => ['0 prep']],
            '70',
        ];
        yield 'a breach comes before everything' => [
            ['9 due.broken.receiving now', '8 due.house.house.prep_out 60 late'],
            [8 => ['0 prep'], 9 => ['0 received temp=50']],
            '70',
        ];
        yield 'broken before not shown' => [
            ['9 due.broken.receiving now', '7 due.settle now'],
            [7 => ['0 received'], 9 => ['0 received temp=50']],
            '5',
        ];
        yield 'several open actions of one batch are one line' => [
            ['7 due.broken.cool.stage1 now +1'],
            [7 => ['-60 cook', '-5 170', '0 cool', '1 134', '400 80']],
            '401',
        ];
        yield 'settled, it is gone' => [
            [],
            [9 => ['0 received temp=50', '1 action finding=receiving', '2 prep', '3 discard']],
            '70',
        ];
        yield 'both gates, and the forecast that the first is missed' => [
            [
                '7 due.forecast.late 112',
                '7 due.limit.cool.stage1 112',
                '7 due.forecast.late 352',
                '7 due.limit.cool.total 352',
            ],
            [7 => ['-60 cook', '-10 170', '-8 136', '-5 cool method=walk-in', '20 130', '40 126']],
            '45',
        ];
        yield 'a rest that may fall' => [
            ['7 due.forecast.hot 87', '7 due.check.rest 170'],
            [7 => ['-60 cook', '-10 200', '0 rest method=towels', '20 183', '50 160']],
            '51',
        ];
        yield 'the unit it is held in asks sooner than the house' => [
            ['7 due.unit 70', '7 due.limit.hot_hold 250'],
            [7 => ['-60 cook', '-5 170', '0 hot_hold place=table', '10 150']],
            '20',
            ['table' => 60],
        ];
        yield 'another unit does not' => [
            ['7 due.check.hot_hold 130', '7 due.limit.hot_hold 250'],
            [7 => ['-60 cook', '-5 170', '0 hot_hold place=table', '10 150']],
            '20',
            ['cabinet' => 60],
        ];
        yield 'late for service' => [
            ['7 due.house.service_late 70', '7 due.house.house.come_up 360'],
            [7 => ['0 cook set=275', '5 note ready_by=2026-05-02T13:10:00Z', '10 60', '40 80', '60 95']],
            '61',
        ];
    }

    public function testALaneComesBackAsItWasPacked(): void
    {
        $lane = self::lane(
            7,
            [
                '-300 cook set=275',
                '-200 100',
                '-100 140',
                '-60 158',
                '-30 165',
                '-1 note ready_by=2026-05-02T20:00:00Z',
                '0 spritz',
            ],
            '5',
        );
        self::assertSame(
            [7, 3, 'b7', false, 'cook', '165', '1/core'],
            [
                $lane->tag,
                $lane->version,
                $lane->batchId,
                $lane->hasEnded(),
                $lane->stage(),
                $lane->last?->temp->number(),
                $lane->last?->track,
            ],
        );
        self::assertCount(4, $lane->line);
        self::assertSame('195', $lane->target?->number());
        self::assertNotNull($lane->outlook);
        self::assertSame('2026-05-02T20:00:00Z', $lane->readyBy?->rfc3339());
        self::assertNull(self::lane(7, ['0 hot_hold place=cabinet'], '5')->outlook);
        self::assertSame('cabinet', self::lane(7, ['0 hot_hold place=cabinet'], '5')->place);
        $empty = self::lane(7, [], '5');
        self::assertSame(['', [], null], [$empty->stage(), $empty->line, $empty->last]);
    }

    public function testALongLineIsThinnedAndKeepsItsEnds(): void
    {
        $lines = ['0 cook'];
        for ($minute = 1; $minute <= 300; ++$minute) {
            $lines[] = $minute.' '.(50 + intdiv($minute, 3));
        }
        $lane = self::lane(7, $lines, '301');
        self::assertLessThan(40, \count($lane->line));
        self::assertSame(
            [Story::at('1')->epoch, Story::at('300')->epoch],
            [$lane->line[0]->at->epoch, $lane->line[\count($lane->line) - 1]->at->epoch],
        );
    }

    public function testTheRoadShowsBarsPostsRingsAndTheLikelySpan(): void
    {
        $now = Story::at('0');
        $picture = static function (array $lines) use ($now): LanePicture {
            $axis = new TimeAxis(Story::at('-360'), Story::at('360'), 0, LanePicture::WIDTH);

            return LanePicture::of(
                self::lane(7, array_values(array_filter($lines, is_string(...))), '0'),
                $axis,
                TemperatureUnit::Fahrenheit,
                TimeZone::named('America/Denver'),
                new MeasureFormatter(),
                $now,
            );
        };
        $cooling = $picture(['-400 cook', '-100 170', '-60 cool', '-50 136', '-40 130']);
        self::assertSame(['cook', 'cool'], array_column($cooling->bars, 'stage'));
        self::assertSame(0.0, $cooling->bars[0]['x'], 'what began before the road is cut off at its edge');
        self::assertSame(['limit', 'ice'], array_column($cooling->posts, 'look'));
        self::assertStringStartsWith('70° ', $cooling->posts[0]['label']);
        self::assertGreaterThan($cooling->hotY, $cooling->coldY);
        self::assertStringStartsWith('M', $cooling->line);
        $cook = $picture(['-300 cook set=275', '-200 100', '-100 140', '-60 158', '-30 165']);
        self::assertNotNull($cook->likely);
        self::assertGreaterThanOrEqual(LanePicture::WIDTH / 2, $cook->likely['x'], 'it lies ahead');
        self::assertSame('195°', $cook->likely['label']);
        self::assertNull($cooling->likely);
        $held = $picture(['-100 cook', '-50 170', '-40 hot_hold', '-30 150']);
        self::assertContains('check', array_column($held->posts, 'look'));
        self::assertSame('', $picture([])->line);
    }

    /** @param list<string> $lines */
    private static function lane(
        int $tag,
        array $lines,
        string $asOf,
        ?string $parent = null,
        bool $hasOwnWay = false,
    ): Lane {
        $assessment = Story::of(...$lines)->about('lamb roast')->assess($asOf);
        $facts = LaneFacts::pack(
            $assessment,
            CookOutlook::of($assessment, Temperature::fahrenheit('195')),
            FallOutlook::of($assessment),
        );

        return LaneFacts::unpack([
            'batch_id' => 'b'.$tag,
            'tag' => $tag,
            'version' => 3,
            'ended_at' => null,
            'verdict' => $assessment->verdict->value,
            'facts' => $facts,
            'parent_id' => $parent,
            'has_own_way' => $hasOwnWay,
        ]);
    }
}
