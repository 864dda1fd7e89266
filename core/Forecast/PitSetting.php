<?php

declare(strict_types=1);

namespace Verjuicer\Core\Forecast;

use Verjuicer\Core\Assess\Assessment;
use Verjuicer\Core\Event\Kinds\Cook;
use Verjuicer\Core\Event\Kinds\PitSet;
use Verjuicer\Core\Measure\Temperature;

/** What the pit of a batch was set to. */
final readonly class PitSetting
{
    /** @return Temperature|null the last, in the unit it was set in; null where nobody said */
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
