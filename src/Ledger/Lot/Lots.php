<?php

declare(strict_types=1);

namespace Verjuicer\App\Ledger\Lot;

use Doctrine\DBAL\Connection;
use Doctrine\ORM\EntityManagerInterface;
use Symfony\Component\Uid\Uuid;
use Verjuicer\App\Ledger\Batch\Batch;
use Verjuicer\App\Ledger\Log\SiteLog;
use Verjuicer\App\Platform\Paging\Page;
use Verjuicer\App\Platform\Paging\PageKey;
use Verjuicer\App\Site\People\Account;
use Verjuicer\App\Site\Site\Site;
use Verjuicer\Core\Event\Detail;
use Verjuicer\Core\Event\Kinds\ColdHold;
use Verjuicer\Core\Event\Kinds\Freeze;
use Verjuicer\Core\Event\Kinds\Thaw;
use Verjuicer\Core\Measure\Instant;
use Verjuicer\Core\Record\Event;

/** The lots of a site: remaining amounts, and batches made from them. */
final readonly class Lots
{
    public function __construct(
        private Connection $connection,
        private EntityManagerInterface $entities,
        private SiteLog $siteLog,
    ) {
    }

    public function find(Site $site, string $id): ?LotOnHand
    {
        $lot = Uuid::isValid($id) ? $this->entities->find(Lot::class, Uuid::fromString($id)) : null;

        return $lot !== null && $lot->site->id->equals($site->id) ? $this->onHand($lot) : null;
    }

    /** @return list<LotOnHand> those with something left, the use-by that comes first at the top */
    public function available(Site $site): array
    {
        /** @var list<string> $ids */
        $ids = $this->connection->fetchFirstColumn(
            <<<'SQL'
            SELECT lot.id FROM lot
            LEFT JOIN (SELECT lot_id, sum(pieces) AS pieces FROM batch_lot
              GROUP BY lot_id) taken ON taken.lot_id = lot.id
            LEFT JOIN (SELECT subject_id, sum((members->>'pieces')::int) AS pieces FROM site_event
              WHERE site_id = :site AND subject = 'lot' AND type = 'discard'
              GROUP BY subject_id) gone ON gone.subject_id = lot.id
            WHERE lot.site_id = :site AND lot.is_accepted AND lot.pieces > coalesce(taken.pieces,
              0) + coalesce(gone.pieces, 0)
            SQL,
            ['site' => $site->id->toRfc4122()],
        );

        return $ids === []
            ? []
            : array_map(
                $this->onHand(...),
                $this->entities
                    ->getRepository(Lot::class)
                    ->findBy(['id' => array_map(Uuid::fromString(...), $ids)], ['useBy' => 'ASC', 'at' => 'ASC']),
            );
    }

    /** @return Page<LotOnHand> the latest deliveries first, refused lots among them */
    public function latest(Site $site, ?PageKey $after): Page
    {
        /** @var list<string> $ids */
        $ids = $this->connection->fetchFirstColumn(
            <<<'SQL'
            SELECT id FROM lot WHERE site_id = :site AND (at, id) < (to_timestamp(:place), :id::uuid) ORDER BY at DESC,
              id DESC LIMIT :most
            SQL,
            ($after ?? PageKey::first())->parameters() + ['site' => $site->id->toRfc4122()],
        );
        $uuids = array_map(Uuid::fromString(...), $ids);
        $lots =
            $uuids === []
                ? []
                : $this->entities
                    ->getRepository(Lot::class)
                    ->findBy(['id' => $uuids], ['at' => 'DESC', 'id' => 'DESC']);

        return Page::of(
            array_map($this->onHand(...), $lots),
            static fn (LotOnHand $one): PageKey => new PageKey($one->lot->at()->epoch, $one->lot->id->toRfc4122()),
        );
    }

    /**
     * @return list<array{id: string, tag: int, code: string, product: string, pieces: int, grams: int}> the batches
     *     that took from a lot
     */
    public function batchesOf(Lot $lot): array
    {
        /** @var list<array{id: string, tag: int, code: string, product: string, pieces: int, grams: int}> */
        return $this->connection->fetchAllAssociative(
            <<<'SQL'
            SELECT b.id, b.tag, b.code, b.product_name AS product, l.pieces, l.grams
            FROM batch_lot l JOIN batch b ON b.id = l.batch_id WHERE l.lot_id = ? ORDER BY b.begun_at, b.code
            SQL,
            [$lot->id->toRfc4122()],
        );
    }

    /** @return list<Lot> the lots a batch took from */
    public function ofBatch(Batch $batch): array
    {
        /** @var list<string> $ids */
        $ids = $this->connection->fetchFirstColumn('SELECT lot_id FROM batch_lot WHERE batch_id = ?', [
            $batch->id->toRfc4122(),
        ]);

        return $ids === []
            ? []
            : $this->entities->getRepository(Lot::class)->findBy(['id' => array_map(Uuid::fromString(...), $ids)]);
    }

    /**
     * Gives pieces of a lot to a batch that is being begun, and its history with them: how it came in and where it has
     * been, each with the time and the initials it was written down with. Within the write that begins the batch, which
     * is to append it.
     *
     * @return list<array{Account, non-empty-list<Event>}> by the person who recorded it, in the order of time
     *
     * @throws TooLittleLeft if the lot has fewer pieces left
     */
    public function giveTo(Batch $batch, Lot $lot): array
    {
        $onHand = $this->onHand($lot);
        if ($batch->pieces > $onHand->piecesLeft) {
            throw TooLittleLeft::of($lot->number, $onHand->piecesLeft);
        }
        $grams =
            $batch->pieces === $onHand->piecesLeft
                ? $onHand->gramsLeft
                : min($onHand->gramsLeft, $batch->pieces * $lot->gramsOfOne());
        $this->connection->insert('batch_lot', [
            'batch_id' => $batch->id->toRfc4122(),
            'lot_id' => $lot->id->toRfc4122(),
            'pieces' => $batch->pieces,
            'grams' => max(1, $grams),
        ]);
        $arrived = self::copy(
            $batch,
            $lot->id,
            $lot->account->initials,
            $lot->recordedAt(),
            $onHand->at(),
            $onHand->arrival(),
        );
        $history = [[$lot->account, [$arrived]]];
        foreach ($onHand->history as $moved) {
            $detail = match ($moved->type) {
                'cold_hold' => new ColdHold($moved->text('place')),
                'freeze' => new Freeze($moved->text('place')),
                'thaw' => new Thaw(place: $moved->text('place')),
                default => null,
            };
            $by = $this->entities->find(Account::class, Uuid::fromString($moved->accountId));
            if ($detail !== null && $by !== null) {
                $source = Uuid::fromString($moved->id);
                $history[] = [
                    $by,
                    [self::copy($batch, $source, $by->initials, $moved->recordedAt, $moved->at, $detail)],
                ];
            }
        }

        return $history;
    }

    private static function copy(
        Batch $batch,
        Uuid $source,
        string $by,
        Instant $recordedAt,
        Instant $at,
        Detail $detail,
    ): Event {
        $id = Uuid::v5($batch->id, $source->toRfc4122())->toRfc4122();

        return new Event($id, $at, $by, $detail, recordedAt: $recordedAt);
    }

    private function onHand(Lot $lot): LotOnHand
    {
        $history = $this->siteLog->of($lot->id);
        /** @var array{pieces: int|null, grams: int|null} $taken */
        $taken = $this->connection->fetchAssociative(
            'SELECT sum(pieces)::int AS pieces, sum(grams)::int AS grams FROM batch_lot WHERE lot_id = ?',
            [$lot->id->toRfc4122()],
        );
        $pieces = $lot->pieces - ($taken['pieces'] ?? 0);
        $grams = $lot->grams - ($taken['grams'] ?? 0);
        foreach ($history as $event) {
            if ($event->type === 'discard') {
                $pieces -= $event->whole('pieces');
                $grams -= $event->whole('grams');
            }
        }

        return new LotOnHand($lot, max(0, $pieces), max(0, $grams), $history);
    }
}
