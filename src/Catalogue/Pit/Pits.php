<?php

declare(strict_types=1);

namespace Verjuicer\App\Catalogue\Pit;

use Doctrine\DBAL\Connection;
use Doctrine\ORM\EntityManagerInterface;
use Symfony\Component\Uid\Uuid;
use Verjuicer\App\Ledger\Batch\Batch;
use Verjuicer\App\Ledger\Chain\SiteChain;
use Verjuicer\App\Ledger\Log\EventLog;
use Verjuicer\App\Ledger\Log\SiteEvent;
use Verjuicer\App\Ledger\Log\SiteLog;
use Verjuicer\App\Site\People\Account;
use Verjuicer\App\Site\Site\Site;
use Verjuicer\App\Work\Entry\EntryProblem;
use Verjuicer\Core\Measure\Instant;
use Verjuicer\Core\Measure\Temperature;
use Verjuicer\Core\Pit\PitEntry;
use Verjuicer\Core\Pit\PitLog;
use Verjuicer\Core\Pit\PitSign;
use Verjuicer\Core\Record\Detail;
use Verjuicer\Core\Record\Event;
use Verjuicer\Core\Record\EventType;

/** The pits of a site: what was written down at each, and the batches in it, whose records get the same set points and readings. */
final readonly class Pits
{
    public function __construct(private Connection $connection, private EntityManagerInterface $entities, private SiteLog $siteLog, private EventLog $eventLog, private SiteChain $chain)
    {
    }

    /** @return list<Pit> */
    public function of(Site $site): array
    {
        return $this->entities->getRepository(Pit::class)->findBy(['site' => $site], ['name' => 'ASC']);
    }

    public function find(Site $site, string $id): ?Pit
    {
        $pit = Uuid::isValid($id) ? $this->entities->find(Pit::class, Uuid::fromString($id)) : null;

        return $pit !== null && $pit->site->id->equals($site->id) ? $pit : null;
    }

    public function named(Site $site, string $name): ?Pit
    {
        foreach ($this->of($site) as $pit) {
            if (mb_strtolower($pit->name) === mb_strtolower($name)) {
                return $pit;
            }
        }

        return null;
    }

    /** @return list<SiteEvent> by time */
    public function history(Pit $pit): array
    {
        return $this->siteLog->of($pit->id, 600);
    }

    /** @param list<SiteEvent> $history */
    public static function log(array $history): PitLog
    {
        $entries = [];
        foreach ($history as $event) {
            $sign = PitSign::tryFrom($event->type);
            if ($sign !== null) {
                $entries[] = new PitEntry($event->at, $sign, $event->temperature('temp'));
            }
        }

        return new PitLog($entries);
    }

    /**
     * What goes onto the heat in a pit: oven and set point are the pit's where nobody said otherwise.
     *
     * @return array{Detail\Cook, array<string, string>} and what the record says of the pit beyond the format
     *
     * @throws EntryProblem if the site has no such pit
     */
    public function loaded(Site $site, string $name, Detail\Cook $cook, Instant $at): array
    {
        $pit = $this->named($site, $name) ?? throw EntryProblem::unknownPit($name);

        return [new Detail\Cook($cook->oven ?? $pit->kind, $cook->set ?? self::log($this->history($pit))->setAt($at)), ['pit' => $pit->name]];
    }

    /** @return list<Batch> open batches on the heat in this pit */
    public function batchesIn(Pit $pit): array
    {
        /** @var list<string> $ids */
        $ids = $this->connection->fetchFirstColumn("SELECT batch_id FROM board_lane WHERE site_id = ? AND ended_at IS NULL AND facts->>'pit' = ? ORDER BY tag", [$pit->site->id->toRfc4122(), $pit->name]);

        return $ids === [] ? [] : $this->entities->getRepository(Batch::class)->findBy(['id' => array_map(Uuid::fromString(...), $ids)], ['tag' => 'ASC']);
    }

    /** Writes down what was seen or done at a pit; a set point or a reading goes into the record of every batch in it, too. */
    public function write(Uuid $id, Pit $pit, Account $by, Instant $at, Instant $recordedAt, PitSign $sign, ?Temperature $temp, string $words): void
    {
        $members = array_filter(['temp' => $temp === null ? null : [$temp->unit->member() => $temp->tenths / 10], 'words' => $words === '' ? null : $words], static fn (mixed $member): bool => $member !== null);
        $this->connection->transactional(function () use ($id, $pit, $by, $at, $recordedAt, $sign, $temp, $members): void {
            $this->chain->lock($pit->site);
            $isNew = $this->siteLog->add($id, 'pit', $pit->id, $by, $at, $recordedAt, $sign->value, $members);
            if (!$isNew || $temp === null) {
                return;
            }
            [$type, $detail] = $sign === PitSign::Set ? [EventType::PitSet, new Detail\PitSet($temp)] : [EventType::PitReading, new Detail\PitReading($temp)];
            foreach ($this->batchesIn($pit) as $batch) {
                $this->eventLog->append($batch, $by, $recordedAt, new Event(Uuid::v5($batch->id, $id->toRfc4122())->toRfc4122(), $at, $by->initials, $type, $detail, unknown: ['pit' => $pit->name]));
            }
        });
    }
}
