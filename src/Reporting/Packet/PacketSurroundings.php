<?php

declare(strict_types=1);

namespace Verjuicer\App\Reporting\Packet;

use Doctrine\DBAL\ArrayParameterType;
use Doctrine\DBAL\Connection;
use Symfony\Component\Uid\Uuid;
use Verjuicer\App\Catalogue\Pit\Pit;
use Verjuicer\App\Catalogue\Pit\Pits;
use Verjuicer\App\Ledger\Log\SiteEvent;
use Verjuicer\App\Ledger\Lot\LotOnHand;
use Verjuicer\App\Ledger\Lot\Lots;
use Verjuicer\App\Ledger\Pit\PitHistory;
use Verjuicer\App\Ledger\Procedure\Procedures;
use Verjuicer\App\Ledger\Procedure\ProcedureVersion;
use Verjuicer\App\Site\Site\Site;
use Verjuicer\Core\Measure\Instant;
use Verjuicer\Core\Record\Procedure;

/** The context of a packet's batches: lots and their use, pits and their fires, people. */
final readonly class PacketSurroundings
{
    public function __construct(
        private Connection $connection,
        private Lots $lots,
        private Pits $pits,
        private PitHistory $history,
        private Procedures $procedures,
    ) {
    }

    /**
     * @param list<string> $batches ids
     * @param array{Instant, Instant}|null $within deliveries of this time are included, too
     *
     * @return list<array{on_hand: LotOnHand, batches: list<array{id: string, tag: int, code: string, product: string,
     *     pieces: int, grams: int}>}> lots received in that time, or used by one of the batches
     */
    public function lots(Site $site, array $batches, ?array $within): array
    {
        /** @var list<string> $ids */
        $ids = $this->connection->fetchFirstColumn(
            <<<'SQL'
            SELECT id FROM lot WHERE site_id = :site AND (at >= :from AND at < :to
              OR id IN (SELECT lot_id FROM batch_lot WHERE batch_id IN (:batches))) ORDER BY at, number
            SQL,
            [
                'site' => $site->id->toRfc4122(),
                'from' => ($within[0] ?? null)?->rfc3339() ?? 'infinity',
                'to' => ($within[1] ?? null)?->rfc3339() ?? '-infinity',
                'batches' => $batches === [] ? [Uuid::v7()->toRfc4122()] : $batches,
            ],
            ['batches' => ArrayParameterType::STRING],
        );
        $rows = [];
        foreach ($ids as $id) {
            $onHand = $this->lots->find($site, $id);
            if ($onHand !== null) {
                $rows[] = ['on_hand' => $onHand, 'batches' => $this->lots->batchesOf($onHand->lot)];
            }
        }

        return $rows;
    }

    /** @return list<array{pit: Pit, events: list<SiteEvent>}> the fires, fuel and temperatures of that time */
    public function pits(Site $site, Instant $from, Instant $to): array
    {
        $rows = [];
        foreach ($this->pits->of($site) as $pit) {
            $events = array_values(
                array_filter(
                    $this->history->of($pit),
                    static fn (SiteEvent $one): bool => !$from->isAfter($one->at) && $to->isAfter($one->at),
                ),
            );
            if ($events !== []) {
                $rows[] = ['pit' => $pit, 'events' => $events];
            }
        }

        return $rows;
    }

    /**
     * The text, approval and training of each procedure that the batches were made by.
     *
     * @param list<Procedure> $used
     *
     * @return list<array{version: ProcedureVersion, until: Instant|null, scans: list<array<string, string>>,
     *     trained: list<array{name: string, at: Instant}>}> by number and version
     */
    public function procedures(Site $site, array $used): array
    {
        $rows = [];
        foreach ($this->procedures->of($site) as $version) {
            foreach ($used as $one) {
                if ($one->kind === $version->kind && $one->version === $version->version) {
                    $rows["$version->number/$version->version"] = [
                        'version' => $version,
                        'until' => $one->to,
                        'scans' => $this->procedures->scans($version->id),
                        'trained' => $this->procedures->trained($version->id),
                    ];
                }
            }
        }
        ksort($rows);

        return array_values($rows);
    }

    /** @return list<array{initials: string, name: string, role: string}> */
    public function people(Site $site): array
    {
        /** @var list<array{initials: string, name: string, role: string}> */
        return $this->connection->fetchAllAssociative(
            'SELECT initials, name, role FROM account WHERE site_id = ? ORDER BY initials',
            [$site->id->toRfc4122()],
        );
    }
}
