<?php

declare(strict_types=1);

namespace Verjuicer\App\Catalogue\Sensor;

use Doctrine\DBAL\Connection;
use Doctrine\DBAL\Exception\UniqueConstraintViolationException;
use Doctrine\ORM\EntityManagerInterface;
use Symfony\Component\Uid\Uuid;
use Verjuicer\App\Catalogue\Thermometer\Thermometer;
use Verjuicer\App\Catalogue\Thermometer\ThermometerKind;
use Verjuicer\App\Platform\Now;
use Verjuicer\App\Site\Access\AccessTokens;
use Verjuicer\App\Site\People\Account;
use Verjuicer\App\Site\Site\Site;
use Verjuicer\Core\Measure\Instant;
use Verjuicer\Core\Measure\Temperature;
use Verjuicer\Core\Measure\TemperatureUnit;

/** The register of sensors of a site. */
final readonly class Sensors
{
    public function __construct(
        private Connection $connection,
        private EntityManagerInterface $entities,
        private AccessTokens $tokens,
        private Now $now,
    ) {
    }

    /**
     * A sensor, and a thermometer for each plug of it: "P5", or "P5-1" to "P5-4".
     *
     * @param int<1, 16> $channels
     *
     * @return array{string, string} its id, and the secret it sends by, which is not to be had again
     *
     * @throws UniqueConstraintViolationException if a sensor or a thermometer has the name
     */
    public function register(string $name, int $channels, string $serial, Account $by): array
    {
        $id = Uuid::v7()->toRfc4122();
        $secret = $this->connection->transactional(function () use ($id, $name, $channels, $serial, $by): string {
            $this->connection->insert('sensor', [
                'id' => $id,
                'site_id' => $by->site->id->toRfc4122(),
                'name' => $name,
                'registered_at' => $this->now->instant()->rfc3339(),
                'registered_by' => $by->id->toRfc4122(),
            ]);
            for ($number = 1; $number <= $channels; ++$number) {
                $label = $channels === 1 ? $name : "$name-$number";
                $thermometer = new Thermometer($by->site, $label, ThermometerKind::Logger, $serial);
                $this->entities->persist($thermometer);
                $this->entities->flush();
                $this->connection->insert('sensor_channel', [
                    'id' => Uuid::v7()->toRfc4122(),
                    'site_id' => $by->site->id->toRfc4122(),
                    'sensor_id' => $id,
                    'number' => $number,
                    'thermometer_id' => $thermometer->id->toRfc4122(),
                ]);
            }

            return $this->tokens->make($name, $by, $id);
        });

        return [$id, $secret];
    }

    /** Another secret in the place of the one it had. */
    public function renew(Sensor $sensor, Account $by): string
    {
        return $this->connection->transactional(function () use ($sensor, $by): string {
            $this->tokens->revokeOfSensor($by->site, $sensor->id);

            return $this->tokens->make($sensor->name, $by, $sensor->id);
        });
    }

    public function revoke(Sensor $sensor, Site $site): void
    {
        $this->connection->transactional(function () use ($sensor, $site): void {
            $this->tokens->revokeOfSensor($site, $sensor->id);
            $this->connection->executeStatement(
                'UPDATE sensor SET revoked_at = ? WHERE id = ? AND revoked_at IS NULL',
                [$this->now->instant()->rfc3339(), $sensor->id],
            );
        });
    }

    /** @return list<Sensor> those in use first, by name */
    public function of(Site $site): array
    {
        return $this->read('s.site_id = ?', [$site->id->toRfc4122()]);
    }

    public function find(Site $site, string $id): ?Sensor
    {
        return $this->read('s.site_id = ? AND s.id::text = ?', [$site->id->toRfc4122(), $id])[0] ?? null;
    }

    /** Locks a sensor that is sending until the transaction ends. */
    public function held(Site $site, string $id): ?Sensor
    {
        $this->connection->executeStatement('SELECT 1 FROM sensor WHERE id = ? FOR UPDATE', [$id]);

        return $this->find($site, $id);
    }

    public function isAnyOf(Site $site): bool
    {
        return $this->connection->fetchOne('SELECT 1 FROM sensor WHERE site_id = ? AND revoked_at IS NULL LIMIT 1', [
            $site->id->toRfc4122(),
        ]) !== false;
    }

    /** Its own status report. */
    public function heard(Sensor $sensor, ?int $skewSeconds, ?int $batteryPercent): void
    {
        $this->connection->executeStatement(
            <<<'SQL'
            UPDATE sensor SET seen_at = ?, skew_seconds = coalesce(?, skew_seconds),
              battery_percent = coalesce(?, battery_percent) WHERE id = ?
            SQL,
            [$this->now->instant()->rfc3339(), $skewSeconds, $batteryPercent, $sensor->id],
        );
    }

    /** @param array<string, mixed> $state of its series so far */
    public function keepState(
        SensorChannel $channel,
        int $sequence,
        Instant $at,
        ?Temperature $temp,
        array $state,
    ): void {
        $this->connection->executeStatement(
            <<<'SQL'
            UPDATE sensor_channel SET last_sequence = greatest(last_sequence, ?), last_at = greatest(last_at, ?),
              last_tenths = ?, last_unit = ?, state = ? WHERE id = ?
            SQL,
            [
                $sequence,
                $at->rfc3339(),
                $temp?->tenths,
                $temp?->unit->value,
                json_encode($state, \JSON_THROW_ON_ERROR),
                $channel->id,
            ],
        );
    }

    /**
     * @param list<string> $parameters
     *
     * @return list<Sensor>
     */
    private function read(string $where, array $parameters): array
    {
        /**
         * @var list<array{id: string, site_id: string, name: string, registered_at: int, initials: string,
         *     revoked_at: int|null, seen_at: int|null, skew_seconds: int|null, battery_percent: int|null,
         *     channel: string, number: int, thermometer_id: string, label: string, last_sequence: int|null,
         *     last_at: int|null, last_tenths: int|null, last_unit: string|null, state: string}> $rows
         */
        $rows = $this->connection->fetchAllAssociative(
            <<<SQL
            SELECT s.id, s.site_id, s.name, extract(epoch FROM s.registered_at)::bigint AS registered_at,
                   coalesce(a.initials, '') AS initials, extract(epoch FROM s.revoked_at)::bigint AS revoked_at,
                   extract(epoch FROM s.seen_at)::bigint AS seen_at, s.skew_seconds, s.battery_percent,
                   c.id AS channel, c.number, c.thermometer_id, t.label, c.last_sequence,
                   extract(epoch FROM c.last_at)::bigint AS last_at, c.last_tenths, c.last_unit, c.state
            FROM sensor s JOIN sensor_channel c ON c.sensor_id = s.id JOIN thermometer t ON t.id = c.thermometer_id
            LEFT JOIN account a ON a.id = s.registered_by
            WHERE $where ORDER BY s.revoked_at IS NOT NULL, s.name, s.id, c.number
            SQL,
            $parameters,
        );
        $ofSensor = [];
        foreach ($rows as $row) {
            $ofSensor[$row['id']][] = $row;
        }

        return array_values(
            array_map(
                static fn (array $its): Sensor => new Sensor(
                    $its[0]['id'],
                    $its[0]['site_id'],
                    $its[0]['name'],
                    Instant::ofEpoch($its[0]['registered_at']),
                    $its[0]['initials'],
                    self::instant($its[0]['revoked_at']),
                    self::instant($its[0]['seen_at']),
                    $its[0]['skew_seconds'],
                    $its[0]['battery_percent'],
                    array_map(self::channel(...), $its),
                ),
                $ofSensor,
            ),
        );
    }

    /**
     * @param array{id: string, channel: string, number: int, thermometer_id: string, label: string,
     *     last_sequence: int|null, last_at: int|null, last_tenths: int|null, last_unit: string|null,
     *     state: string} $row
     */
    private static function channel(array $row): SensorChannel
    {
        $state = json_decode($row['state'], true, flags: \JSON_THROW_ON_ERROR);

        return new SensorChannel(
            $row['channel'],
            $row['id'],
            $row['number'],
            $row['thermometer_id'],
            $row['label'],
            $row['last_sequence'],
            self::instant($row['last_at']),
            $row['last_tenths'] === null || $row['last_unit'] === null
                ? null
                : Temperature::ofTenths($row['last_tenths'], TemperatureUnit::from($row['last_unit'])),
            \is_array($state) ? $state : [],
        );
    }

    private static function instant(?int $epoch): ?Instant
    {
        return $epoch === null ? null : Instant::ofEpoch($epoch);
    }
}
