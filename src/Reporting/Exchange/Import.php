<?php

declare(strict_types=1);

namespace Verjuicer\App\Reporting\Exchange;

use Verjuicer\App\Platform\Progress\Eta;
use Verjuicer\Core\Measure\Instant;
use Verjuicer\Core\Measure\Span;

/** An uploaded file to import, and the result. */
final readonly class Import
{
    private const SILENT_S = 60;

    /**
     * @param string $mapping JSON: how a logger's table is read
     * @param int|null $added null until it is finished
     * @param Instant $at when it was asked for, or handed over where it was not yet
     * @param string|null $problem why it was not taken in
     * @param int $done events so far, of so many in all
     * @param Instant|null $toldAt when it said last how far it is
     * @param string|null $batchId of the batch that is not all in yet
     */
    public function __construct(
        public string $id,
        public string $accountId,
        public string $by,
        public Instant $at,
        public ImportKind $what,
        public string $mapping,
        public ?Instant $finishedAt,
        public ?int $added,
        public ?int $known,
        public ?string $problem,
        public int $done,
        public ?int $total,
        public ?Instant $toldAt,
        public bool $isStopped,
        public ?string $batchId,
        public bool $isAsked,
    ) {
    }

    /** Whether it was stopped, broke off, or was not heard of for a while, so that it may be gone on with. */
    public function mayGoOn(Instant $now): bool
    {
        return $this->finishedAt === null
            && ($this->isStopped || $this->problem !== null || $this->silentFor($now) !== null);
    }

    /** How long no worker has worked on it; null if one did within a minute, or if it is over or stopped. */
    public function silentFor(Instant $now): ?Span
    {
        $seconds = $now->epoch - ($this->toldAt ?? $this->at)->epoch;
        $isWaitedFor = $this->finishedAt === null && !$this->isStopped && $this->problem === null;

        return $isWaitedFor && $seconds > self::SILENT_S ? Span::ofSeconds($seconds) : null;
    }

    /** The estimated remaining time, by the progress since the upload; null before any progress. */
    public function left(Instant $now): ?Span
    {
        return Eta::of($this->at, $this->done, $this->total, $now);
    }
}
