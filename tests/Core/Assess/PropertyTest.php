<?php

declare(strict_types=1);

namespace Verjuicer\Tests\Core\Assess;

use PHPUnit\Framework\TestCase;
use Random\Engine\Mt19937;
use Random\Randomizer;
use Verjuicer\Core\Assess\Assessment;
use Verjuicer\Core\Assess\Assessor;
use Verjuicer\Core\Assess\Finding\Verdict;
use Verjuicer\Core\Event\Kinds\Cook;
use Verjuicer\Core\Event\Kinds\Reading;
use Verjuicer\Core\Event\Kinds\TimeControl;
use Verjuicer\Core\Measure\Instant;
use Verjuicer\Core\Record\Record;
use Verjuicer\Core\Record\Writer;
use Verjuicer\Tests\Core\Story;

/** What holds for every record, tried on many made by chance; a failure names the seed that makes it again. */
final class PropertyTest extends TestCase
{
    private const RECORDS = 400;
    private const STAGES = [
        'prep',
        'cook oven=still set=350',
        'cook oven=convection set=250',
        'rest',
        'hot_hold',
        'cool',
        'cold_hold',
        'freeze',
        'thaw',
        'reheat for=hot_hold',
        'time_control plan=hot_4h',
        'time_control plan=cold_6h',
        'serve',
        'discard',
    ];
    private const PRODUCTS = [
        'beef cut',
        'lamb roast 3kg',
        'turkey roast 2pieces',
        'pork comminuted',
        'pork rte_commercial',
        'beef roast 5kg 2pieces',
    ];

    public function testAReadingUnderTheHotLimitNeverImprovesAHold(): void
    {
        foreach ($this->chance() as $seed => $chance) {
            $lines = $this->lines($chance, ['hot_hold']);
            $at = $chance->getInt(1, 500);
            $reading = \sprintf('%d %.1f p1', $at, $chance->getInt(300, 1299) / 10);
            $product = $this->product($chance);
            $before = Story::of('-300 cook oven=still set=350', '-200 140', '-100 140', '0 hot_hold', ...$lines)
                ->about($product)
                ->assess('600');
            $after = Story::of(
                '-300 cook oven=still set=350',
                '-200 140',
                '-100 140',
                '0 hot_hold',
                $reading,
                ...$lines,
            )
                ->about($product)
                ->assess('600');
            self::assertFalse(
                $before->rulesJudged['hot_hold']->isWorseThan($after->rulesJudged['hot_hold']),
                "seed $seed: the hold improved",
            );
            self::assertFalse($before->verdict->isWorseThan($after->verdict), "seed $seed: the record improved");
        }
    }

    public function testMovingTheMomentForwardMendsNothing(): void
    {
        foreach ($this->chance() as $seed => $chance) {
            $story = Story::of(...$this->lines($chance, self::STAGES))->about($this->product($chance));
            $record = $story->record();
            $broken = [];
            for ($minute = 0; $minute <= 900; $minute += 20) {
                $assessment = $this->assess($record, Story::at((string) $minute));
                foreach ($broken as $rule => $since) {
                    if ($this->isTakenBack($rule, $record, $since, $minute)) {
                        continue;
                    }
                    self::assertSame(
                        Verdict::Broken,
                        $assessment->rulesJudged[$rule] ?? null,
                        "seed $seed: $rule broken at minute $since, not at $minute\n".$story->json(),
                    );
                }
                foreach ($assessment->rulesJudged as $rule => $verdict) {
                    if ($verdict === Verdict::Broken) {
                        $broken[$rule] ??= $minute;
                    }
                }
            }
        }
    }

    public function testTimeAloneChangesAVerdictOnlyAfterTheMomentNamed(): void
    {
        foreach ($this->chance() as $seed => $chance) {
            $record = Story::of(...$this->lines($chance, self::STAGES))->about($this->product($chance))->record();
            $last = $record->events === [] ? Story::at('0') : $record->events[\count($record->events) - 1]->at;
            $assessment = $this->assess($record, $last);
            for ($turn = 0; $turn < 4 && $assessment->nextTurn !== null; ++$turn) {
                $until = $this->assess($record, $assessment->nextTurn);
                self::assertSame(
                    $assessment->rulesJudged,
                    $until->rulesJudged,
                    "seed $seed: changed before {$assessment->nextTurn->rfc3339()}",
                );
                $assessment = $this->assess($record, Instant::ofEpoch($assessment->nextTurn->epoch + 1));
            }
        }
    }

    public function testAWrittenRecordReadsAsTheSame(): void
    {
        foreach ($this->chance() as $seed => $chance) {
            $record = Story::of(...$this->lines($chance, self::STAGES))
                ->about($this->product($chance))
                ->withThermometer('T1', '-60 32 33', '400 32 36')
                ->record();
            $again = Story::reader()->read(Writer::write($record, $chance->getInt(0, 1) === 1));
            self::assertEquals($record, $again, "seed $seed");
            self::assertEquals(
                $this->assess($record, Story::at('600'))->findings,
                $this->assess($again, Story::at('600'))->findings,
                "seed $seed",
            );
        }
    }

    /**
     * Where the rules themselves let a later event take a breach back: the last of several start readings decides, a
     * later cook begins a new date, and a cold reading in a reheat begins its two hours anew.
     */
    private function isTakenBack(string $rule, Record $record, int $since, int $minute): bool
    {
        foreach ($record->events as $event) {
            $at = intdiv($event->at->epoch - Story::at('0')->epoch, 60);
            $takesBack = match ($rule) {
                'time_control' => $event->is(TimeControl::class) && $at + 5 >= $since,
                'date_mark' => $event->is(Cook::class) && $at >= $since,
                'reheat' => $event->detail instanceof Reading
                    && $at >= $since
                    && $event->detail->temp->isAtMost(Story::rules()->limits()->cold->threshold),
                default => false,
            };
            if ($takesBack && $at <= $minute) {
                return true;
            }
        }

        return false;
    }

    private function assess(Record $record, Instant $asOf): Assessment
    {
        return (new Assessor())->assess($record, Story::rules(), $asOf);
    }

    /** @return iterable<int, Randomizer> */
    private function chance(): iterable
    {
        for ($seed = 1; $seed <= self::RECORDS; ++$seed) {
            yield $seed => new Randomizer(new Mt19937($seed));
        }
    }

    private function product(Randomizer $chance): string
    {
        return self::PRODUCTS[$chance->getInt(0, \count(self::PRODUCTS) - 1)];
    }

    /**
     * @param list<string> $stages
     *
     * @return list<string> in order of time
     */
    private function lines(Randomizer $chance, array $stages): array
    {
        $lines = [];
        $minute = 0;
        for ($event = $chance->getInt(0, 24); $event > 0; --$event) {
            $minute += $chance->getInt(0, 70);
            $lines[] =
                $minute
                .' '
                .match (true) {
                    $chance->getInt(0, 2) === 0 => $stages[$chance->getInt(0, \count($stages) - 1)],
                    $chance->getInt(0, 20) === 0 => ['inject', 'probe_moved', 'note'][$chance->getInt(0, 2)],
                    $chance->getInt(0, 4) === 0 => \sprintf(
                        '%.1fc p%d T1',
                        $chance->getInt(0, 900) / 10,
                        $chance->getInt(1, 2),
                    ),
                    default => \sprintf('%.1f p%d T1', $chance->getInt(300, 2000) / 10, $chance->getInt(1, 2)),
                };
        }

        return $lines;
    }
}
