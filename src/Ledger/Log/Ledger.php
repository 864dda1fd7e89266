<?php

declare(strict_types=1);

namespace Verjuicer\App\Ledger\Log;

use Doctrine\DBAL\Connection;
use Verjuicer\App\Ledger\Batch\Batch;
use Verjuicer\App\Ledger\Chain\RecordingClock;
use Verjuicer\App\Ledger\Chain\SiteChain;
use Verjuicer\App\Ledger\Chain\SiteDays;
use Verjuicer\App\Platform\Now;
use Verjuicer\App\Site\Site\Site;

/**
 * One writer a site at a time: everything recorded together is kept together, under one lock, and followed once it is
 * committed. A write within a write is part of it.
 */
final class Ledger
{
    private int $depth = 0;

    /** @var array<string, true> ids of batches */
    private array $changed = [];

    private ?Site $written = null;

    public function __construct(
        private readonly Connection $connection,
        private readonly SiteChain $chain,
        private readonly SiteDays $days,
        private readonly LedgerListener $follower,
        private readonly RecordingClock $clock,
        private readonly Now $now,
    ) {
    }

    /**
     * @template T
     *
     * @param \Closure(): T $write
     * @param bool $trusts the clock, because this very write confirms it with a reason
     *
     * @return T the result of the write; throws a ClockProblem if the machine's clock cannot be right
     */
    public function write(Site $site, \Closure $write, bool $trusts = false): mixed
    {
        if ($this->depth > 0) {
            return $write();
        }
        ++$this->depth;
        try {
            $result = $this->connection->transactional(function () use ($site, $write, $trusts): mixed {
                $now = $this->now->instant();
                $head = $this->chain->lock($site, $now);
                if (!$trusts) {
                    $this->clock->check($site, $head->last, $now);
                }
                $this->days->close($site, $now, $head->opened);
                $result = $write();
                $changed = array_keys($this->changed);
                if ($changed !== []) {
                    $this->follower->mark($site->id->toRfc4122(), $changed);
                }

                return $result;
            });
            $changed = array_keys($this->changed);
        } finally {
            --$this->depth;
            $this->changed = [];
        }
        $this->written = $site;
        if ($changed !== []) {
            $this->follower->follow($site->id->toRfc4122(), $changed);
        }

        return $result;
    }

    /** Of which site something was recorded since this was asked last. */
    public function written(): ?Site
    {
        [$site, $this->written] = [$this->written, null];

        return $site;
    }

    /** Announces, at the end of a write, that a further write of the same follows; listeners are notified then. */
    public function goesOn(): void
    {
        $this->changed = [];
    }

    /** Says, within a write, that something of a batch changed. */
    public function changed(Batch|string $batch): void
    {
        $this->changed[$batch instanceof Batch ? $batch->id->toRfc4122() : $batch] = true;
    }

    /** Marks, within a write, every open batch of a site for rebuilding. */
    public function changedAll(Site $site): void
    {
        /** @var list<string> $ids */
        $ids = $this->connection->fetchFirstColumn(
            'SELECT batch_id FROM open_tag WHERE site_id = ?',
            [$site->id->toRfc4122()],
        );
        array_map($this->changed(...), $ids);
    }
}
