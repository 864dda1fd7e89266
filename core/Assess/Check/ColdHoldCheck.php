<?php

declare(strict_types=1);

namespace Verjuicer\Core\Assess\Check;

use Verjuicer\Core\Assess\Evidence\CaseFile;
use Verjuicer\Core\Assess\Evidence\Stage;
use Verjuicer\Core\Assess\Evidence\Trace;
use Verjuicer\Core\Assess\Evidence\TrackReading;
use Verjuicer\Core\Assess\Finding\Finding;
use Verjuicer\Core\Assess\Finding\Findings;
use Verjuicer\Core\Assess\Finding\Verdict;
use Verjuicer\Core\Event\Kinds\ColdHold;

/** Cold food stays cold; on its way down from the heat it is asked of it only once it was. */
final readonly class ColdHoldCheck implements RuleCheck
{
    public function judge(CaseFile $case, Findings $findings): void
    {
        $offTheHeat = [];
        foreach ($case->blocksOffTheHeat() as $block) {
            foreach ($block->stages as $stage) {
                $offTheHeat[$stage->index] = true;
            }
            if ($block->has(ColdHold::class)) {
                foreach ($case->readingsIn($block)->byTrack() as $track => $trace) {
                    $warmed = self::warmedInTheCold($case, $block->stages, $trace);
                    if ($warmed !== null) {
                        $findings->add(self::broken($case, $track, $warmed));
                    }
                }
            }
        }
        foreach ($case->stagesOf(ColdHold::class) as $stage) {
            if (!isset($offTheHeat[$stage->index])) {
                foreach ($case->readingsIn($stage)->byTrack() as $track => $trace) {
                    $findings->add(self::held($case, $stage, $track, $trace));
                }
            }
        }
    }

    private static function held(CaseFile $case, Stage $stage, string $track, Trace $trace): Finding
    {
        $cold = $case->limits->cold;
        $warm = $trace->firstAbove($cold->threshold);
        if ($warm !== null) {
            return self::broken($case, $track, $warm);
        }
        $last = $trace->last();
        \assert($last !== null, 'a track has a reading');
        $values = [
            'limit' => $cold->threshold,
            'count' => $trace->count(),
            'temp' => $last->temp,
            'at' => $last->instant(),
        ];

        return new Finding(
            rule: 'cold_hold',
            verdict: Verdict::Met,
            citation: $cold->citation,
            message: 'cold_hold.met',
            values: $values,
            track: $track,
            from: $stage->from,
            to: $stage->isOpen ? null : $stage->to,
            towards: $cold->threshold,
            evidence: [$last->id],
        );
    }

    private static function broken(CaseFile $case, string $track, TrackReading $warm): Finding
    {
        $cold = $case->limits->cold;

        return new Finding(
            rule: 'cold_hold',
            verdict: Verdict::Broken,
            citation: $cold->citation,
            message: 'cold_hold.broken',
            values: ['limit' => $cold->threshold, 'temp' => $warm->temp, 'at' => $warm->instant()],
            track: $track,
            from: $warm->instant(),
            to: $warm->instant(),
            towards: $cold->threshold,
            evidence: [$warm->id],
            options: ['discard'],
        );
    }

    /** @param non-empty-list<Stage> $stages of one block */
    private static function warmedInTheCold(CaseFile $case, array $stages, Trace $trace): ?TrackReading
    {
        $cold = $case->limits->cold->threshold;
        $wasCold = false;
        $stage = 0;
        foreach ($trace->all() as $reading) {
            while ($stages[$stage]->endOrder <= $reading->order) {
                ++$stage;
            }
            if ($reading->temp->isAtMost($cold)) {
                $wasCold = true;
            } elseif ($wasCold && $stages[$stage]->is(ColdHold::class)) {
                return $reading;
            }
        }

        return null;
    }
}
