<?php

declare(strict_types=1);

namespace Verjuicer\App\Ledger\Opening;

use Doctrine\DBAL\Connection;
use Doctrine\ORM\EntityManagerInterface;
use Symfony\Component\Uid\Uuid;
use Verjuicer\App\Ledger\Batch\Batch;
use Verjuicer\App\Ledger\Batch\BatchPlan;
use Verjuicer\App\Ledger\Batch\TagInUse;
use Verjuicer\App\Ledger\Log\EventLog;
use Verjuicer\App\Ledger\Log\Ledger;
use Verjuicer\App\Ledger\Lot\Lot;
use Verjuicer\App\Ledger\Lot\Lots;
use Verjuicer\App\Ledger\Lot\TooLittleLeft;
use Verjuicer\App\Site\People\Account;
use Verjuicer\App\Site\Settings\SiteHistory;
use Verjuicer\Core\Measure\Instant;
use Verjuicer\Core\Measure\LocalDate;
use Verjuicer\Core\Record\Event;

/** Begins batches: the batch and its first events in one transaction. */
final readonly class NewBatches
{
    public function __construct(
        private Connection $connection,
        private EntityManagerInterface $entities,
        private Ledger $ledger,
        private SiteHistory $history,
        private EventLog $log,
        private Lots $lots,
    ) {
    }

    /**
     * @param Uuid $id made by the client: the same again begins nothing new
     * @param Lot|null $lot it takes its pieces from, and its history until now
     * @param Instant $begun on its site's clock it gets the date of its code
     *
     * @throws TagInUse if an open batch of the site has this tag
     * @throws TooLittleLeft if its lot has fewer pieces left
     */
    public function begin(Uuid $id, Account $by, BatchPlan $plan, ?Lot $lot, Instant $begun, Event ...$first): Batch
    {
        return $this->ledger->write($by->site, function () use ($id, $by, $plan, $lot, $begun, $first): Batch {
            $known = $this->entities->find(Batch::class, $id);
            if ($known !== null) {
                return $known;
            }
            $this->refuseTagInUse($by, $plan->tag);
            $portioned = $plan->portioned;
            $code =
                $portioned === null
                    ? $this->code($by, $begun, $plan->tag)
                    : $portioned->parent->code.'-'.$portioned->letter;
            $batch = $this->added(
                new Batch(
                    $id,
                    $by->site,
                    $code,
                    $plan,
                    $this->history->at($by->site, $begun)->ruleSet,
                    self::dateTime($begun),
                    $by,
                ),
            );
            foreach ($lot === null ? [] : $this->lots->giveTo($batch, $lot) as [$account, $events]) {
                $this->log->append($batch, $account, ...$events);
            }
            $this->log->append($batch, $by, ...$first);
            $this->log->holdTag($batch);

            return $batch;
        });
    }

    /**
     * Within a write. Takes in a batch that was begun elsewhere: it keeps its code and the rule set it was begun under.
     *
     * @param bool $isWhole whether these are all of its events, so that it is known whether it is open
     *
     * @throws TagInUse if it is open, and another open batch of the site has its tag
     */
    public function takeIn(
        Uuid $id,
        Account $by,
        BatchPlan $plan,
        string $code,
        string $ruleSet,
        Instant $begun,
        bool $isWhole,
        Event ...$events,
    ): Batch {
        $batch = $this->added(new Batch($id, $by->site, $code, $plan, $ruleSet, self::dateTime($begun), $by));
        if (!$isWhole) {
            $this->log->appendPart($batch, $by, ...$events);

            return $batch;
        }
        $this->log->append($batch, $by, ...$events);
        $this->log->holdTag($batch);

        return $batch;
    }

    private function added(Batch $batch): Batch
    {
        $this->entities->persist($batch);
        $this->entities->flush();
        $this->ledger->changed($batch);

        return $batch;
    }

    private static function dateTime(Instant $instant): \DateTimeImmutable
    {
        return new \DateTimeImmutable($instant->rfc3339());
    }

    private function refuseTagInUse(Account $by, int $tag): void
    {
        $inUse = 'SELECT 1 FROM open_tag WHERE site_id = ? AND tag = ?';
        if ($this->connection->fetchOne($inUse, [$by->site->id->toRfc4122(), $tag]) !== false) {
            throw TagInUse::already($tag);
        }
    }

    /**
     * The local date it began on and its tag, "2026-1124-7"; a second one of that day with that tag gets a further
     * number.
     */
    private function code(Account $by, Instant $begun, int $tag): string
    {
        $date = LocalDate::ofInstant($begun, $by->site->zone());
        $base = gmdate('Y-md', 86400 * $date->days).'-'.$tag;
        for ($number = 1;; ++$number) {
            $code = $base.($number === 1 ? '' : '.'.$number);
            $taken = 'SELECT 1 FROM batch WHERE site_id = ? AND code = ?';
            if ($this->connection->fetchOne($taken, [$by->site->id->toRfc4122(), $code]) === false) {
                return $code;
            }
        }
    }
}
