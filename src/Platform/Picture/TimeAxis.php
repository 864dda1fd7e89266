<?php

declare(strict_types=1);

namespace Verjuicer\App\Platform\Picture;

use Verjuicer\App\Platform\Wording\MeasureFormatter;
use Verjuicer\Core\Measure\Instant;
use Verjuicer\Core\Measure\TimeZone;

/** Time runs to the right: places moments between two ends on a width. */
final readonly class TimeAxis
{
    public function __construct(public Instant $from, public Instant $to, public int $left, public int $right)
    {
    }

    public function x(Instant $instant): float
    {
        $share = ($instant->epoch - $this->from->epoch) / max(1, $this->to->epoch - $this->from->epoch);

        return round($this->left + $share * ($this->right - $this->left), 1);
    }

    /** The same, kept on the width. */
    public function clampedX(Instant $instant): float
    {
        return max((float) $this->left, min((float) $this->right, $this->x($instant)));
    }

    public function shows(Instant $instant): bool
    {
        return $instant->epoch >= $this->from->epoch && $instant->epoch <= $this->to->epoch;
    }

    /**
     * Round hours on the site's wall, as many as there is room for.
     *
     * @return list<array{x: float, label: string, is_midnight: bool}>
     */
    public function hours(TimeZone $zone, MeasureFormatter $figures, int $mostTicks = 13): array
    {
        $ticks = [];
        $step = 1;
        while (intdiv($this->to->epoch - $this->from->epoch, 3600 * $step) > $mostTicks) {
            $step = $step === 1 ? 2 : ($step === 2 ? 3 : $step * 2);
        }
        // Half-hour zones have their full hours at half past in UTC: walked in quarters of an hour, on the wall's
        // clock.
        for ($at = intdiv($this->from->epoch, 900) * 900 + 900; $at <= $this->to->epoch; $at += 900) {
            $wall = $at + $zone->offsetAt(Instant::ofEpoch($at));
            if ($wall % (3600 * $step) === 0) {
                $ticks[] = [
                    'x' => $this->x(Instant::ofEpoch($at)),
                    'label' => $figures->hour($wall),
                    'is_midnight' => gmdate('G', $wall) === '0',
                ];
            }
        }

        return $ticks;
    }
}
