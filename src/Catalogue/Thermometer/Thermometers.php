<?php

declare(strict_types=1);

namespace Verjuicer\App\Catalogue\Thermometer;

use Doctrine\DBAL\Connection;
use Doctrine\ORM\EntityManagerInterface;
use Symfony\Component\Uid\Uuid;
use Verjuicer\App\Ledger\Batch\Batch;
use Verjuicer\App\Ledger\Chain\SiteChain;
use Verjuicer\App\Ledger\Check\Check;
use Verjuicer\App\Projection\Lane\BoardLanes;
use Verjuicer\App\Site\People\Account;
use Verjuicer\App\Site\Site\Site;
use Verjuicer\Core\Json\Fields;
use Verjuicer\Core\Json\Problems;
use Verjuicer\Core\Measure\Instant;
use Verjuicer\Core\Measure\Temperature;
use Verjuicer\Core\Ruleset\RuleSetLibrary;

/** The thermometers of a site and their checks. A check changes what earlier readings are worth, so it changes every lane they are in. */
final readonly class Thermometers
{
    public function __construct(private Connection $connection, private EntityManagerInterface $entities, private BoardLanes $lanes, private RuleSetLibrary $ruleSets, private SiteChain $chain)
    {
    }

    /** @return list<Thermometer> those in use first */
    public function of(Site $site): array
    {
        return $this->entities->getRepository(Thermometer::class)->findBy(['site' => $site], ['retiredAt' => 'DESC', 'label' => 'ASC']);
    }

    public function find(Site $site, string $id): ?Thermometer
    {
        $thermometer = Uuid::isValid($id) ? $this->entities->find(Thermometer::class, Uuid::fromString($id)) : null;

        return $thermometer !== null && $thermometer->site->id->equals($site->id) ? $thermometer : null;
    }

    /** @return list<string> of those in use */
    public function labels(Site $site): array
    {
        /** @var list<string> */
        return $this->connection->fetchFirstColumn('SELECT label FROM thermometer WHERE site_id = ? AND retired_at IS NULL ORDER BY label', [$site->id->toRfc4122()]);
    }

    /** The thermometer this batch was last read with, unless it was retired since. */
    public function lastUsedIn(Batch $batch): ?string
    {
        $label = $this->connection->fetchOne(<<<'SQL'
            SELECT t.label FROM event e JOIN thermometer t ON t.site_id = ? AND t.label = e.members->>'thermometer' AND t.retired_at IS NULL
            WHERE e.batch_id = ? AND e.type = 'reading' ORDER BY e.seq DESC LIMIT 1
            SQL, [$batch->site->id->toRfc4122(), $batch->id->toRfc4122()]);

        return \is_string($label) ? $label : null;
    }

    /** @return list<Check> by the time they were made, from one moment on and before another */
    public function checksOf(Thermometer $thermometer, ?Instant $from = null, ?Instant $before = null): array
    {
        $tolerance = $this->ruleSets->get($thermometer->site->ruleSet)->thermometerTolerance;
        /** @var list<array{id: string, at: int, initials: string, method: string, expected: string, read: string, outcome: string, pressure_hpa: int|null}> $rows */
        $rows = $this->connection->fetchAllAssociative(<<<'SQL'
            SELECT c.id, extract(epoch FROM c.at)::bigint AS at, a.initials, c.method, c.expected, c.read, c.outcome, c.pressure_hpa
            FROM thermometer_check c JOIN account a ON a.id = c.account_id WHERE c.thermometer_id = ? AND c.at >= ? AND c.at < ? ORDER BY c.at, c.seq
            SQL, [$thermometer->id->toRfc4122(), $from?->rfc3339() ?? '-infinity', $before?->rfc3339() ?? 'infinity']);

        return array_map(static function (array $row) use ($tolerance): Check {
            $expected = self::temperature($row['expected']);
            $read = self::temperature($row['read']);

            return new Check($row['id'], Instant::ofEpoch($row['at']), $row['initials'], $row['method'], $expected, $read, $row['outcome'], $row['pressure_hpa'], $tolerance->covers($expected, $read));
        }, $rows);
    }

    /** Writes a check down, and judges every batch anew that was read with this thermometer. */
    public function check(Uuid $id, Thermometer $thermometer, Account $by, Instant $at, Instant $recordedAt, string $method, Temperature $expected, Temperature $read, string $outcome, ?int $pressureHpa): void
    {
        $this->connection->transactional(function () use ($id, $thermometer, $by, $at, $recordedAt, $method, $expected, $read, $outcome, $pressureHpa): void {
            $this->chain->lock($thermometer->site);
            $isNew = $this->connection->executeStatement(<<<'SQL'
                INSERT INTO thermometer_check (id, thermometer_id, at, recorded_at, account_id, method, expected, read, outcome, pressure_hpa)
                VALUES (?, ?, ?, ?, ?, ?, ?, ?, ?, ?) ON CONFLICT (id) DO NOTHING
                SQL, [
                $id->toRfc4122(), $thermometer->id->toRfc4122(), $at->rfc3339(), $recordedAt->rfc3339(), $by->id->toRfc4122(), $method,
                self::json($expected), self::json($read), $outcome, $pressureHpa,
            ]) === 1;
            if ($outcome === 'retired' && $thermometer->retiredAt === null) {
                $thermometer->retiredAt = new \DateTimeImmutable($at->rfc3339());
                $this->entities->flush();
            }
            if ($isNew) {
                foreach ($this->batchesReadWith($thermometer) as $batch) {
                    $this->lanes->refreshWithPortions($batch, $recordedAt);
                }
            }
        });
    }

    /** @return list<Batch> the latest first */
    public function batchesReadWith(Thermometer $thermometer): array
    {
        /** @var list<string> $ids */
        $ids = $this->connection->fetchFirstColumn(<<<'SQL'
            SELECT id FROM batch b WHERE site_id = ? AND EXISTS (SELECT 1 FROM event WHERE batch_id = b.id AND type = 'reading' AND members->>'thermometer' = ?)
            SQL, [$thermometer->site->id->toRfc4122(), $thermometer->label]);

        return $ids === [] ? [] : $this->entities->getRepository(Batch::class)->findBy(['id' => array_map(Uuid::fromString(...), $ids)], ['begunAt' => 'DESC']);
    }

    private static function json(Temperature $temperature): string
    {
        return json_encode([$temperature->unit->member() => $temperature->tenths / 10], \JSON_THROW_ON_ERROR | \JSON_PRESERVE_ZERO_FRACTION);
    }

    private static function temperature(string $json): Temperature
    {
        $temperature = (new Fields((object) ['t' => json_decode($json, flags: \JSON_THROW_ON_ERROR)], null, '', new Problems()))->temperature('t');
        \assert($temperature !== null, 'only whole temperatures are kept');

        return $temperature;
    }
}
