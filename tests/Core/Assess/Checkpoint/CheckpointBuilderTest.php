<?php

declare(strict_types=1);

namespace Verjuicer\Tests\Core\Assess\Checkpoint;

use PHPUnit\Framework\Attributes\DataProvider;
use PHPUnit\Framework\TestCase;
use Random\Engine\Mt19937;
use Random\Randomizer;
use Verjuicer\Core\Assess\AbandonedSpots;
use Verjuicer\Core\Assess\Assessor;
use Verjuicer\Core\Assess\Checkpoint\Checkpoint;
use Verjuicer\Core\Assess\Checkpoint\CheckpointBuilder;
use Verjuicer\Core\Assess\Evidence\CookOutcome;
use Verjuicer\Core\Assess\Evidence\Outline;
use Verjuicer\Core\Assess\Evidence\TrackReading;
use Verjuicer\Core\Assess\OpenActions;
use Verjuicer\Core\Assess\Reminders;
use Verjuicer\Core\Measure\Instant;
use Verjuicer\Core\Record\Event;
use Verjuicer\Core\Record\Record;
use Verjuicer\Tests\Core\Story;

/** A record that is abridged and goes on shows at every moment what the whole one shows. */
final class CheckpointBuilderTest extends TestCase
{
    /** So few that the outline hides nothing of what else is kept. */
    private const FEW = 2;
    private const STAGES = [
        'prep',
        'cook oven=still set=350',
        'cook oven=convection set=250',
        'cook oven=high_humidity set=200',
        'rest',
        'rest',
        'hot_hold',
        'hot_hold',
        'cool',
        'cold_hold',
        'freeze',
        'thaw method=running_water',
        'thaw',
        'reheat for=hot_hold',
        'time_control plan=hot_4h',
        'time_control plan=cold_6h',
        'serve',
    ];
    /** Stages that go together, so that crowds meet the limits they are judged by. */
    private const THEMES = [
        ['cook oven=high_humidity set=250', 'rest', 'hot_hold'],
        ['cook oven=still set=350', 'rest', 'cook oven=still set=350'],
        ['hot_hold', 'rest', 'cool', 'cold_hold'],
        ['cold_hold', 'reheat for=hot_hold', 'reheat for=hot_hold'],
        ['cold_hold', 'time_control plan=cold_6h', 'time_control plan=hot_4h'],
        ['thaw method=running_water', 'thaw', 'cold_hold'],
    ];
    private const PRODUCTS = [
        'beef cut',
        'lamb roast 6kg',
        'turkey roast 2pieces',
        'pork comminuted',
        'pork rte_commercial',
        'beef roast 8kg 3pieces',
        'beef cut non_intact',
    ];
    private const OTHER = [
        'inject',
        'probe_moved p1',
        'probe_moved p2',
        'pit_reading temp=225',
        'pit_set set=180',
        'note step=reminder text=wrap temp=150',
        'action text=looked finding=hot_hold',
        'spritz',
    ];

    /** @return iterable<string, array{int}> */
    public static function seeds(): iterable
    {
        for ($seed = 1; $seed <= 300; ++$seed) {
            yield "seed $seed" => [$seed];
        }
    }

    #[DataProvider('seeds')]
    public function testAnAbridgedRecordShowsWhatTheWholeShows(int $seed): void
    {
        $chance = new Randomizer(new Mt19937($seed));
        $record = Story::of(...self::lines($chance))
            ->about(self::PRODUCTS[$seed % \count(self::PRODUCTS)])
            ->withThermometer('T1', '-60 32 33', '400 32 32')
            ->withThermometer('T2', '900 32 32')
            ->record();
        $cuts = [];
        for ($cut = 0; $cut < 3; ++$cut) {
            $cuts[] = $chance->getInt(1, \count($record->events));
        }
        self::agrees($record, $cuts, [$chance->getInt(0, 4000), $chance->getInt(0, 90_000)]);
    }

    /** @return iterable<string, array{string, list<string>}> product; stages, and crowds "minutes temperature step" */
    public static function crowds(): iterable
    {
        $roast = 'cook oven=high_humidity set=250';
        yield 'runs parted by silence' => [
            'lamb roast 6kg',
            [$roast, '60 131 1', '40', '30 131 1', '1 131.5', '30 131 1', '40', '60 131 1', '80 131.2 1'],
        ];
        yield 'runs parted by a dip' => [
            'lamb roast 6kg',
            [$roast, '60 131 1', '1 129', '60 131 1', '1 131.5', '30 131 1', '1 129.5', '30 131 1', '99 131 1'],
        ];
        yield 'a peak between two silences' => [
            'lamb roast 6kg',
            [$roast, '70 131 1', '35', '10 131 1', '1 131.5 1', '20 131 1', '50', '60 131 1'],
        ];
        yield 'a peak between dips' => [
            'lamb roast 6kg',
            [
                $roast, '10 131 1', '1 129 1', '60 131 1', '1 129.4 1', '60 131 1', '1 131.5 1', '30 131 1',
                '1 129.5 1', '30 131 1',
            ],
        ];
        yield 'cold again after a reheat' => [
            'beef cut',
            [
                'cold_hold', '60 38 1', 'reheat for=hot_hold', '9 44 1', '9 40 1', '9 44 1', '30 100 1', '20 166 1',
                '40 40 1',
            ],
        ];
        yield 'a row met by a hotter run within' => ['lamb roast 6kg', [$roast, '30 131 1', '20 140 1', '60 131 1']];
        yield 'a probe that moves in a run' => [
            'lamb roast 6kg',
            [$roast, '80 131 1', 'probe_moved p1', '80 131 1', '50 132 1', 'rest', '60 131 1'],
        ];
        yield 'a second cook after a hold' => [
            'lamb roast 6kg',
            [$roast, '40 131 1', 'hot_hold', '50 136 1', $roast, '60 131 1', '70 132 1'],
        ];
        yield 'rows that close late' => [
            'lamb roast 6kg',
            [$roast, '90 131 1', '20 140 1', 'pit_set set=180', '30 141 1', 'rest', '60 138 1'],
        ];
        yield 'the longest silence in a hold' => [
            'beef cut',
            [
                'cook oven=still set=350', '30 150 1', 'hot_hold', '60 141 1', '25', '60 140 1', '55', '60 141 1',
                '90', '9 141',
            ],
        ];
        yield 'the longest silence in a rest' => [
            'beef cut',
            ['cook oven=still set=350', '30 150 1', 'rest', '60 141 1', '35', '60 140 1', '12', '60 141 1', '9 130 1'],
        ];
        yield 'a dip in a hold, and back' => [
            'beef cut',
            ['hot_hold', '60 141 1', '15 134 1', '60 140 1', '15 133 1', '60 141 1', '5 120 1'],
        ];
        yield 'a dip that goes on over a moved probe' => [
            'beef cut',
            ['hot_hold', '60 141 1', '15 134 1', 'probe_moved p1', '15 133 1', '30 140 1', '10 133 1', '30 140 1'],
        ];
        yield 'cold twice in a reheat' => [
            'beef cut',
            [
                'cold_hold', '60 38 1', 'reheat for=hot_hold', '9 40 1', '9 44 1', '30 40 1', '20 50 1', '40 120 1',
                '9 164', '40 166 1',
            ],
        ];
        yield 'never hot in a reheat' => [
            'pork rte_commercial',
            [
                'cold_hold', '60 38 1', 'reheat for=hot_hold', '9 44 1', '1 41', '60 60 1', '60 100 1', '80 134 1',
                '1 41', '60 90 1',
            ],
        ];
        yield 'cooled, and warmed again in the cold' => [
            'beef cut',
            [
                'cook oven=still set=350', '30 150 1', 'cool', '60 120 1', '60 71 1', '60 60 1', '60 42 1', '60 40 1',
                '1 43', '30 41 1', 'cold_hold', '30 40 1', '1 42', '60 40 1',
            ],
        ];
        yield 'hot last at another spot' => [
            'beef cut',
            [
                'cook oven=still set=350', '30 150 1', 'rest', '60 140 1', '60 136 1 @flat', 'cool',
                '30 120 1 @point', '60 100 1',
            ],
        ];
        yield 'hot last at another spot, which fell since' => [
            'beef cut',
            [
                'cook oven=still set=350', '30 150 1', 'rest', '60 140 1', '90 120 1', '30 120 1 @point',
                '60 60 1 @point',
            ],
        ];
        yield 'impossible twice' => ['beef cut', ['cold_hold', '60 40 1', '1 90', '60 40 1', '1 99', '60 40 1']];
        yield 'the start of time control' => [
            'beef cut',
            ['hot_hold', '60 140 1', 'time_control plan=hot_4h', '3 137 1', '60 100 1', '60 90 1'],
        ];
        yield 'cold time control over its ceiling' => [
            'beef cut',
            ['cold_hold', '60 40 1', 'time_control plan=cold_6h', '60 60 1', '30 69 1', '1 71', '60 66 1'],
        ];
        yield 'thawed in water' => [
            'beef cut',
            ['thaw method=running_water', '60 38 1', '30 42 1', '60 40 1', '9 71 1', '60 60 1'],
        ];
        yield 'two in one second' => ['beef cut', ['reheat for=hot_hold', '9 45 0', '60 40 0', '60 50 1', '60 41 0']];
        yield 'both units at a limit' => [
            'beef cut',
            ['hot_hold', '30 57.2c 1', '30 135 1', '30 57c 1', '30 134.9 1', '30 57.3c 1', '30 134.8 1', '60 140 1'],
        ];
        yield 'a reminder at a temperature' => [
            'beef cut',
            [
                'cook oven=still set=350', 'note step=reminder text=wrap temp=150', '60 120 1', '60 148 1',
                '60 152 1', '60 140 1',
            ],
        ];
        yield 'never checked, and checked long ago' => [
            'beef cut',
            ['cold_hold', '60 40 1 T9', '60 40 1 T1', '2000', '60 40 1 T1', '60 39 1 T9'],
        ];
    }

    /** @param list<string> $said */
    #[DataProvider('crowds')]
    public function testACrowdOfReadingsIsLeftOutWithoutATrace(string $product, array $said): void
    {
        $at = 0;
        $lines = [];
        foreach ($said as $one) {
            $words = explode(' ', $one);
            if (!is_numeric($words[0])) {
                $lines[] = self::at($at).$one;
                continue;
            }
            if (!isset($words[1])) {
                $at += 60 * (int) $words[0];
                continue;
            }
            $step = (int) ($words[2] ?? 0);
            for ($count = (int) $words[0]; $count > 0; --$count) {
                $at += 60 * $step;
                $lines[] = self::at($at).trim($words[1].' p1 '.implode(' ', \array_slice($words, 3)));
            }
            $at += $step === 0 ? 60 : 0;
        }
        $record = Story::of(...$lines)->about($product)->withThermometer('T1', '-60 32 33')->record();
        $whole = \count($record->events);
        foreach ([2, 3, 5, 9] as $parts) {
            $cuts = [];
            for ($cut = 1; $cut <= $parts; ++$cut) {
                $cuts[] = intdiv($cut * $whole, $parts);
            }
            self::agrees($record, $cuts, [1, 3600, 100_000]);
        }
        for ($cut = 1; $cut < $whole; $cut += 7) {
            self::agrees($record, [$cut], [1]);
        }
    }

    /**
     * Abridged at each cut, it shows what the whole shows at that moment; and so it does with all that comes later.
     *
     * @param list<int> $cuts after so many events
     * @param list<int> $later seconds after the last event
     */
    private static function agrees(Record $record, array $cuts, array $later): void
    {
        sort($cuts);
        $past = null;
        $known = 0;
        $abridged = self::part($record, []);
        foreach ($cuts as $cut) {
            $more = \array_slice($record->events, $known, $cut - $known);
            if (self::putsRight($record, $known, $more)) {
                // Whoever puts something right there has the whole read again.
                $past = null;
                $abridged = self::part($record, \array_slice($record->events, 0, $cut));
            } else {
                $abridged = self::part($record, [...$abridged->events, ...$more]);
            }
            $known = $cut;
            $until = $record->events[$cut - 1]->at;
            $next = CheckpointBuilder::of($abridged, Story::rules(), $until, $past, self::FEW);
            self::assertNotNull($next);
            $past = Checkpoint::ofData(
                json_decode(json_encode($next->toData(), \JSON_THROW_ON_ERROR), true, flags: \JSON_THROW_ON_ERROR),
            );
            self::assertEquals($next->leftOut, $past->leftOut);
            $abridged = self::part($record, $past->events($abridged));
            $whole = self::part($record, \array_slice($record->events, 0, $cut));
            self::assertSame(self::shown($whole, $until), self::shown($abridged, $until, $past), "at event $cut");
        }
        $rest = \array_slice($record->events, $known);
        if (self::putsRight($record, $known, $rest)) {
            return;
        }
        $abridged = self::part($record, [...$abridged->events, ...$rest]);
        $last = $record->events[\count($record->events) - 1]->at;
        foreach ($later as $seconds) {
            $at = Instant::ofEpoch($last->epoch + $seconds);
            self::assertSame(self::shown($record, $at), self::shown($abridged, $at, $past), "$seconds s later");
        }
    }

    /**
     * Whether any of these events takes the place of one of the first so many.
     *
     * @param list<Event> $events
     */
    private static function putsRight(Record $record, int $known, array $events): bool
    {
        $first = array_column(\array_slice($record->events, 0, $known), null, 'id');

        return array_filter($events, static fn (Event $one): bool => isset($first[$one->replaces ?? ''])) !== [];
    }

    /** @param list<Event> $events */
    private static function part(Record $record, array $events): Record
    {
        return new Record(
            $record->site,
            $record->rules,
            $record->asOf,
            $record->thermometers,
            $record->code,
            $record->product,
            $events,
        );
    }

    private static function shown(Record $record, Instant $at, ?Checkpoint $past = null): string
    {
        $assessment = (new Assessor())->assess($record, Story::rules(), $at, $past);
        $ids = static fn (array $readings): array => array_map(
            static fn (TrackReading $one): string => $one->id,
            $readings,
        );

        return var_export([
            $assessment->verdict,
            $assessment->rulesJudged,
            array_map(self::plain(...), $assessment->findings),
            array_map(self::plain(...), $assessment->countdowns),
            self::plain($assessment->dangerZone),
            $assessment->suspectReadings,
            $assessment->nextTurn?->epoch,
            array_map(
                static fn (CookOutcome $cook): array => [
                    $cook->verdict,
                    $cook->window->lowRows,
                    $cook->earnsRoastLimit(),
                ],
                $assessment->cooks,
            ),
            OpenActions::of($assessment),
            $ids(AbandonedSpots::of($assessment)),
            self::plain(Reminders::of($assessment->timeline)),
            $ids(Outline::of($assessment->timeline, self::FEW)),
        ], true);
    }

    private static function plain(mixed $value): mixed
    {
        return json_decode(json_encode($value, \JSON_THROW_ON_ERROR), true);
    }

    /** @return list<string> in order of time: crowds of readings that wander, and what is done between them */
    private static function lines(Randomizer $chance): array
    {
        $lines = [];
        $at = 0;
        $temp = [400, 380, 420];
        $isCalm = $chance->getInt(0, 3) > 0;
        $themes = [self::STAGES, ...self::THEMES];
        $theme = $themes[$chance->getInt(0, \count($themes) - 1)];
        for ($stage = $chance->getInt(2, 5); $stage > 0; --$stage) {
            $lines[] = self::at($at).$theme[$chance->getInt(0, \count($theme) - 1)];
            $crowd = [5, 60, 400, 400][$chance->getInt(0, 3)];
            $aim = [350, 400, 800, 1280, 1330, 1360, 1500, 1640, 1900][$chance->getInt(0, 8)];
            $noise = [0, 3, 20, 60][$chance->getInt(0, 3)];
            $step = [1, 20, 60, 300][$chance->getInt(0, 3)];
            for ($event = $chance->getInt(0, $crowd); $event > 0; --$event) {
                $isSilent = $chance->getInt(0, 40) === 0;
                $at += $chance->getInt($isCalm ? 1 : 0, $isSilent ? 5400 : $step);
                if ($chance->getInt(0, 150) === 0) {
                    $lines[] = self::at($at).self::OTHER[$chance->getInt(0, \count(self::OTHER) - 1)];
                    continue;
                }
                $probe = $chance->getInt(0, 9) < 7 ? 0 : $chance->getInt(1, 2);
                $temp[$probe] += intdiv($aim - $temp[$probe], 12) + $chance->getInt(-$noise, $noise);
                $temp[$probe] = max(300, min(2050, $temp[$probe]));
                if ($chance->getInt(0, 300) === 0) {
                    $temp[$probe] = $chance->getInt(300, 2000);
                }
                if ($chance->getInt(0, 60) === 0 && \count($lines) > 3) {
                    // What was read before is put right, sooner or later.
                    $wrong = \count($lines) - $chance->getInt(1, min(40, \count($lines) - 1));
                    $right = $temp[$probe] / 10 + 3;
                    $lines[] = self::at($at).\sprintf('%.1f p1 T1 replaces=e%d', $right, $wrong);
                    continue;
                }
                $isCelsius = !$isCalm && $chance->getInt(0, 9) === 0;
                $lines[] = self::at($at).\sprintf(
                    $isCelsius ? '%.1fc %s%s' : '%.1f %s%s',
                    $isCelsius ? ($temp[$probe] / 10 - 32) / 1.8 : $temp[$probe] / 10,
                    ['p1', 'p2', 'p1 @flat'][$probe],
                    $isCalm ? ' T1' : [' T1', ' T1', ' T1', ' T2', ''][$chance->getInt(0, $chance->getInt(0, 4))],
                );
            }
            $at += $chance->getInt(0, 1800);
        }

        return $lines;
    }

    private static function at(int $seconds): string
    {
        return \sprintf('%d:%02d ', intdiv($seconds, 60), $seconds % 60);
    }
}
