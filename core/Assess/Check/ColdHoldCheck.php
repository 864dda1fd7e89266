<?php

declare(strict_types=1);

namespace Verjuicer\Core\Assess\Check;

use Verjuicer\Core\Assess\Evidence\CaseFile;
use Verjuicer\Core\Assess\Evidence\Reading;
use Verjuicer\Core\Assess\Evidence\Stage;
use Verjuicer\Core\Assess\Evidence\Trace;
use Verjuicer\Core\Assess\Finding\Finding;
use Verjuicer\Core\Assess\Finding\Findings;
use Verjuicer\Core\Assess\Finding\Verdict;
use Verjuicer\Core\Measure\Instant;
use Verjuicer\Core\Record\EventType;

/** Cold food stays cold; on its way down from the heat it is asked of it only once it was. */
final readonly class ColdHoldCheck implements Check
{
    public function judge(CaseFile $case, Findings $findings): void
    {
        $offTheHeat = [];
        foreach ($case->blocksOffTheHeat() as $block) {
            foreach ($block->stages as $stage) {
                $offTheHeat[$stage->index] = true;
            }
            if ($block->has(EventType::ColdHold)) {
                foreach ($case->readingsIn($block)->byTrack() as $track => $trace) {
                    $warmed = self::warmedInTheCold($case, $block->stages, $trace);
                    if ($warmed !== null) {
                        $findings->add(self::broken($case, $track, $warmed));
                    }
                }
            }
        }
        foreach ($case->stagesOf(EventType::ColdHold) as $stage) {
            if (!isset($offTheHeat[$stage->index])) {
                foreach ($case->readingsIn($stage)->byTrack() as $track => $trace) {
                    $findings->add(self::held($case, $stage, $track, $trace));
                }
            }
        }
    }

    private static function held(CaseFile $case, Stage $stage, string $track, Trace $trace): Finding
    {
        foreach ($trace->readings as $reading) {
            if ($reading->temp->isAbove($case->rules->cold->threshold)) {
                return self::broken($case, $track, $reading);
            }
        }
        $last = $trace->last();
        \assert($last !== null, 'a track has a reading');

        return new Finding(
            'cold_hold',
            Verdict::Met,
            $case->rules->cold->citation,
            'cold_hold.met',
            ['limit' => $case->rules->cold->threshold, 'count' => \count($trace->readings), 'temp' => $last->temp, 'at' => Instant::ofEpoch($last->at)],
            $track,
            $stage->from,
            $stage->isOpen ? null : $stage->to,
            evidence: [$last->id],
        );
    }

    private static function broken(CaseFile $case, string $track, Reading $warm): Finding
    {
        return new Finding(
            'cold_hold',
            Verdict::Broken,
            $case->rules->cold->citation,
            'cold_hold.broken',
            ['limit' => $case->rules->cold->threshold, 'temp' => $warm->temp, 'at' => Instant::ofEpoch($warm->at)],
            $track,
            Instant::ofEpoch($warm->at),
            Instant::ofEpoch($warm->at),
            evidence: [$warm->id],
            options: ['discard'],
        );
    }

    /** @param non-empty-list<Stage> $stages of one block */
    private static function warmedInTheCold(CaseFile $case, array $stages, Trace $trace): ?Reading
    {
        $cold = $case->rules->cold->threshold;
        $wasCold = false;
        $stage = 0;
        foreach ($trace->readings as $reading) {
            while ($stages[$stage]->endOrder <= $reading->order) {
                ++$stage;
            }
            if ($reading->temp->isAtMost($cold)) {
                $wasCold = true;
            } elseif ($wasCold && $stages[$stage]->type() === EventType::ColdHold) {
                return $reading;
            }
        }

        return null;
    }
}
