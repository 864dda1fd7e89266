<?php

declare(strict_types=1);

namespace Verjuicer\App\Site\Site;

use Symfony\Component\HttpFoundation\RequestStack;
use Verjuicer\App\Platform\Now;
use Verjuicer\Core\Measure\Instant;
use Verjuicer\Core\Measure\MalformedInstant;
use Verjuicer\Core\Measure\Span;

/**
 * The original time of an entry that a device stored while offline: "now" and "ten minutes ago" refer to it. It is
 * recorded now, and marked as entered without a network.
 */
final readonly class OfflineEntryTime
{
    public const FIELD = 'made_offline';
    /** A week in a drawer is longer than anybody means. */
    private const OLDEST_HOURS = 24 * 7;

    public function __construct(private RequestStack $requests, private Now $now)
    {
    }

    /**
     * Null where it was entered just now.
     *
     * @throws InvalidEventTime if it was longer ago than a device may keep it, or cannot be read: its time has to be
     *     typed
     */
    public function at(): ?Instant
    {
        $said = $this->requests->getMainRequest()?->request->getString(self::FIELD) ?? '';
        if ($said === '') {
            return null;
        }
        try {
            $at = Instant::parse(preg_replace('/\.\d+/', '', $said) ?? '');
        } catch (MalformedInstant) {
            throw InvalidEventTime::unreadable($said);
        }
        $now = $this->now->instant();
        if ($at->isAfter($now)) {
            return $now;
        }

        return $at->isAfter(
            $now->plus(Span::ofHours(-self::OLDEST_HOURS)),
        ) ? $at : throw InvalidEventTime::tooLongAgo($said);
    }
}
