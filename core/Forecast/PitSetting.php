<?php

declare(strict_types=1);

namespace Verjuicer\Core\Forecast;

use Verjuicer\Core\Assess\Assessment;
use Verjuicer\Core\Event\Kinds\Cook;
use Verjuicer\Core\Event\Kinds\PitSet;
use Verjuicer\Core\Measure\Temperature;

/** The set points of a batch's pit. */
final readonly class PitSetting
{
    /** @return Temperature|null the last, in its own unit; null if none was recorded */
    public static function last(Assessment $assessment): ?Temperature
    {
        $set = null;
        foreach ($assessment->timeline->happenings as $event) {
            $set = match (true) {
                $event->detail instanceof Cook, $event->detail instanceof PitSet => $event->detail->set ?? $set,
                default => $set,
            };
        }

        return $set;
    }
}
