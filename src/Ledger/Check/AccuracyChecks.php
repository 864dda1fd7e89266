<?php

declare(strict_types=1);

namespace Verjuicer\App\Ledger\Check;

use Doctrine\DBAL\Connection;
use Doctrine\ORM\EntityManagerInterface;
use Symfony\Component\Uid\Uuid;
use Verjuicer\App\Catalogue\Thermometer\Thermometer;
use Verjuicer\App\Ledger\Batch\Batch;
use Verjuicer\App\Ledger\Log\EventConflict;
use Verjuicer\App\Ledger\Log\Ledger;
use Verjuicer\App\Platform\Now;
use Verjuicer\App\Site\People\Account;
use Verjuicer\App\Site\Settings\SiteRules;
use Verjuicer\Core\Json\DocumentProblems;
use Verjuicer\Core\Json\Fields;
use Verjuicer\Core\Measure\Instant;
use Verjuicer\Core\Measure\Temperature;
use Verjuicer\Core\Ruleset\ThermometerRules;

/** Accuracy checks of thermometers. A check changes the trust in readings, and so every batch with them. */
final readonly class AccuracyChecks
{
    public const OUTCOMES = ['kept', 'adjusted', 'retired'];

    public function __construct(
        private Connection $connection,
        private EntityManagerInterface $entities,
        private Ledger $ledger,
        private SiteRules $rules,
        private Now $now,
    ) {
    }

    /** @return list<AccuracyCheck> by the time they were made, from one moment on and before another */
    public function of(Thermometer $thermometer, ?Instant $from = null, ?Instant $before = null): array
    {
        $tolerance = $this->rules->of($thermometer->site)->get(ThermometerRules::class)->tolerance;
        /**
         * @var list<array{id: string, at: int, initials: string, method: string, expected: string, read: string,
         *     outcome: string, pressure_hpa: int|null}> $rows
         */
        $rows = $this->connection->fetchAllAssociative(
            <<<'SQL'
            SELECT c.id, extract(epoch FROM c.at)::bigint AS at, a.initials, c.method, c.expected, c.read, c.outcome,
              c.pressure_hpa
            FROM thermometer_check c JOIN account a ON a.id = c.account_id
            WHERE c.thermometer_id = ? AND c.at >= ? AND c.at < ? ORDER BY c.at, c.seq
            SQL,
            [$thermometer->id->toRfc4122(), $from?->rfc3339() ?? '-infinity', $before?->rfc3339() ?? 'infinity'],
        );

        return array_map(static function (array $row) use ($tolerance): AccuracyCheck {
            $expected = self::temperature($row['expected']);
            $read = self::temperature($row['read']);

            return new AccuracyCheck(
                $row['id'],
                Instant::ofEpoch($row['at']),
                $row['initials'],
                $row['method'],
                $expected,
                $read,
                $row['outcome'],
                $row['pressure_hpa'],
                $tolerance->covers($expected, $read),
            );
        }, $rows);
    }

    /**
     * Records a check; affected batches are judged again afterwards.
     *
     * @param Uuid $id made by the client: the same again is kept once
     *
     * @throws EventConflict if it lies ahead of now
     */
    public function add(
        Uuid $id,
        Thermometer $thermometer,
        Account $by,
        Instant $at,
        string $method,
        Temperature $expected,
        Temperature $read,
        string $outcome = 'kept',
        ?int $pressureHpa = null,
    ): void {
        if ($at->isAfter($this->now->instant())) {
            throw EventConflict::inTheFuture();
        }
        $this->ledger->write($thermometer->site, function () use (
            $id,
            $thermometer,
            $by,
            $at,
            $method,
            $expected,
            $read,
            $outcome,
            $pressureHpa,
        ): void {
            $isNew =
                $this->connection->executeStatement(
                    <<<'SQL'
                    INSERT INTO thermometer_check (id, thermometer_id, at, recorded_at, account_id, method, expected,
                      read, outcome, pressure_hpa)
                    VALUES (?, ?, ?, ?, ?, ?, ?, ?, ?, ?) ON CONFLICT (id) DO NOTHING
                    SQL,
                    [
                        $id->toRfc4122(),
                        $thermometer->id->toRfc4122(),
                        $at->rfc3339(),
                        $this->now->instant()->rfc3339(),
                        $by->id->toRfc4122(),
                        $method,
                        self::json($expected),
                        self::json($read),
                        $outcome,
                        $pressureHpa,
                    ],
                ) === 1;
            if ($outcome === 'retired' && $thermometer->retiredAt === null) {
                $thermometer->retiredAt = new \DateTimeImmutable($at->rfc3339());
                $this->entities->flush();
            }
            if ($isNew) {
                array_map($this->ledger->changed(...), $this->touched($thermometer, $at));
            }
        });
    }

    /**
     * @param list<AccuracyCheck> $checks of a thermometer, by time
     *
     * @return list<Batch> that were read with it between the check before a failed one and the check after, the latest
     *     first
     */
    public function batchesInDoubt(Thermometer $thermometer, array $checks): array
    {
        $ids = [];
        foreach ($checks as $index => $check) {
            if (!$check->hasPassed) {
                $ids = [
                    ...$ids,
                    ...$this->readBetween(
                        $thermometer,
                        $checks[$index - 1]->at ?? null,
                        $checks[$index + 1]->at ?? null,
                    ),
                ];
            }
        }
        $uuids = array_map(Uuid::fromString(...), array_values(array_unique($ids)));

        return $uuids === []
            ? []
            : $this->entities->getRepository(Batch::class)->findBy(['id' => $uuids], ['begunAt' => 'DESC']);
    }

    /** @return list<string> ids of batches */
    private function readBetween(Thermometer $thermometer, ?Instant $from, ?Instant $before): array
    {
        /** @var list<string> */
        return $this->connection->fetchFirstColumn(
            <<<'SQL'
            SELECT DISTINCT e.batch_id FROM event e JOIN batch b ON b.id = e.batch_id
            WHERE b.site_id = :site AND e.type = 'reading' AND e.members->>'thermometer' = :label AND e.at >= :from
              AND e.at < :before
            SQL,
            [
                'site' => $thermometer->site->id->toRfc4122(),
                'label' => $thermometer->label,
                'from' => $from?->rfc3339() ?? '-infinity',
                'before' => $before?->rfc3339() ?? 'infinity',
            ],
        );
    }

    /**
     * The readings a check concerns: those after the check before it and before the check after it.
     *
     * @return list<string> ids of batches
     */
    private function touched(Thermometer $thermometer, Instant $at): array
    {
        /** @var list<string> */
        return $this->connection->fetchFirstColumn(
            <<<'SQL'
            SELECT DISTINCT e.batch_id FROM event e JOIN batch b ON b.id = e.batch_id
            WHERE b.site_id = :site AND e.type = 'reading' AND e.members->>'thermometer' = :label
              AND e.at >= coalesce((SELECT max(p.at) FROM thermometer_check p WHERE p.thermometer_id = :id
                AND p.at < :at), '-infinity')
              AND e.at <= coalesce((SELECT min(n.at) FROM thermometer_check n WHERE n.thermometer_id = :id
                AND n.at > :at), 'infinity')
            SQL,
            [
                'site' => $thermometer->site->id->toRfc4122(),
                'label' => $thermometer->label,
                'id' => $thermometer->id->toRfc4122(),
                'at' => $at->rfc3339(),
            ],
        );
    }

    private static function json(Temperature $temperature): string
    {
        $members = [$temperature->unit->member() => $temperature->tenths / 10];

        return json_encode($members, \JSON_THROW_ON_ERROR | \JSON_PRESERVE_ZERO_FRACTION);
    }

    private static function temperature(string $json): Temperature
    {
        $members = (object) ['t' => json_decode($json, flags: \JSON_THROW_ON_ERROR)];
        $temperature = (new Fields($members, null, '', new DocumentProblems()))->temperature('t');
        \assert($temperature !== null, 'only whole temperatures are kept');

        return $temperature;
    }
}
