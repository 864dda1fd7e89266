<?php

declare(strict_types=1);

namespace Verjuicer\App\Ledger\Opening;

use Doctrine\DBAL\Connection;
use Doctrine\ORM\EntityManagerInterface;
use Symfony\Component\Uid\Uuid;
use Verjuicer\App\Ledger\Batch\Batch;
use Verjuicer\App\Ledger\Batch\BatchPlan;
use Verjuicer\App\Ledger\Chain\SiteChain;
use Verjuicer\App\Ledger\Log\EventLog;
use Verjuicer\App\Ledger\Lot\Lots;
use Verjuicer\App\Ledger\Lot\TooLittleLeft;
use Verjuicer\App\Site\People\Account;
use Verjuicer\Core\Measure\Instant;
use Verjuicer\Core\Measure\LocalDate;
use Verjuicer\Core\Record\Event;

/** Begins batches: the batch and its first events in one transaction. */
final readonly class NewBatches
{
    public function __construct(
        private Connection $connection,
        private EntityManagerInterface $entities,
        private EventLog $log,
        private Lots $lots,
        private SiteChain $chain,
    ) {
    }

    /**
     * @param Uuid $id made by the client: the same again begins nothing new
     *
     * @throws TagInUse      if an open batch of the site has this tag
     * @throws TooLittleLeft if its lot has fewer pieces left
     */
    public function begin(Uuid $id, Account $by, Instant $now, BatchPlan $plan, Event $first, Event ...$more): Batch
    {
        return $this->connection->transactional(function () use ($id, $by, $now, $plan, $first, $more): Batch {
            // One begin a site at a time: codes and tags are given out in turn.
            $this->chain->lock($by->site);
            $known = $this->entities->find(Batch::class, $id);
            if ($known !== null) {
                return $known;
            }
            if ($this->connection->fetchOne('SELECT 1 FROM board_lane WHERE site_id = ? AND tag = ? AND ended_at IS NULL', [$by->site->id->toRfc4122(), $plan->tag]) !== false) {
                throw TagInUse::already($plan->tag);
            }
            $begun = $first->at;
            $batch = new Batch(
                $id,
                $by->site,
                $plan->portioned === null ? $this->code($by, $begun, $plan->tag) : $plan->portioned->parent->code.'-'.$plan->portioned->letter,
                $plan,
                $by->site->ruleSet,
                new \DateTimeImmutable($begun->rfc3339()),
                $by,
            );
            $this->entities->persist($batch);
            $this->entities->flush();
            if ($plan->lot !== null) {
                $this->lots->giveTo($batch, $plan->lot);
            }
            $this->log->append($batch, $by, $now, $first, ...$more);

            return $batch;
        });
    }

    /** The local date it began on and its tag, "1124-7"; a second one of that day with that tag gets a further number. */
    private function code(Account $by, Instant $begun, int $tag): string
    {
        $date = LocalDate::ofInstant($begun, $by->site->zone());
        $base = gmdate('md', 86400 * $date->days).'-'.$tag;
        $year = gmdate('Y', 86400 * $date->days);
        for ($number = 1;; ++$number) {
            $code = $year.'-'.$base.($number === 1 ? '' : '.'.$number);
            if ($this->connection->fetchOne('SELECT 1 FROM batch WHERE site_id = ? AND code = ?', [$by->site->id->toRfc4122(), $code]) === false) {
                return $code;
            }
        }
    }
}
