<?php

declare(strict_types=1);

namespace Verjuicer\App\Platform\Wording;

use Symfony\Contracts\Translation\TranslatorInterface;
use Verjuicer\Core\Assess\Assessment;
use Verjuicer\Core\Assess\DangerZone;

/**
 * Tells how long food was in the danger zone, for screen, sheet and packet alike: one that begins unread is never told
 * as one figure.
 */
final readonly class ZoneText
{
    public function __construct(private TranslatorInterface $translator, private MeasureFormatter $figures)
    {
    }

    public function of(DangerZone $zone): string
    {
        $words = match (true) {
            !$zone->beginsUnread => 'zone.figure',
            $zone->estimate->seconds === 0 && $zone->unread->seconds === $zone->greatest->seconds => 'zone.never_read',
            default => 'zone.unread',
        };

        return $this->translator->trans($words, [
            '{estimate}' => $this->figures->span($zone->estimate),
            '{least}' => $this->figures->span($zone->least),
            '{greatest}' => $this->figures->span($zone->greatest),
            '{unread}' => $this->figures->span($zone->unread),
        ]);
    }

    /** The parts of the figure, and how to make it more precise. */
    public function help(Assessment $assessment): string
    {
        $unit = $assessment->record->site->unit;

        return $this->translator->trans($assessment->dangerZone->beginsUnread ? 'zone.unread_help' : 'zone.help', [
            '{cold}' => $this->figures->threshold($assessment->rules->limits()->cold->threshold, $unit),
            '{hot}' => $this->figures->threshold($assessment->rules->limits()->hot->threshold, $unit),
        ]);
    }
}
