<?php

declare(strict_types=1);

namespace Verjuicer\App\Operations\Entry;

use Verjuicer\App\Platform\Now;
use Verjuicer\App\Site\Site\OfflineEntryTime;
use Verjuicer\Core\Event\Kinds\Reading;
use Verjuicer\Core\Measure\Instant;

/** When somebody made an entry, and whether a reading is entered so late that the record wants a reason. */
final readonly class EntryTime
{
    private const LATE = 3600; // seconds

    public function __construct(private Now $now, private OfflineEntryTime $offline)
    {
    }

    /** Of what was made without a network, the moment it was made; else now. */
    public function now(): Instant
    {
        return $this->offline->at() ?? $this->now->instant();
    }

    /** A sensor sends late by itself, a logger is read afterwards, and a correction has a reason of its own. */
    public function needsReason(Draft $draft): bool
    {
        return $draft->detail instanceof Reading
            && !$draft->detail->logger
            && $draft->by === null
            && $draft->replaces === null
            && trim($draft->reason ?? '') === ''
            && $this->now()->epoch - $draft->at->epoch > self::LATE;
    }
}
