<?php

declare(strict_types=1);

namespace Verjuicer\App\Site\Access;

use Doctrine\DBAL\Connection;
use ParagonIE\ConstantTime\Base64UrlSafe;
use Symfony\Component\Uid\Uuid;
use Verjuicer\App\Platform\Now;
use Verjuicer\App\Site\People\Account;
use Verjuicer\App\Site\Site\Site;
use Verjuicer\App\Site\Tenancy\Tenant;
use Verjuicer\Core\Measure\Instant;

/** The tokens of a site: shown once, kept as a digest, taken back at any time. */
final readonly class AccessTokens
{
    private const COLUMNS = <<<'SQL'
    t.id, t.site_id, t.sensor_id, t.key_id, t.name, extract(epoch FROM t.made_at)::bigint AS made_at,
    coalesce(a.initials, '') AS initials, extract(epoch FROM t.revoked_at)::bigint AS revoked_at
    SQL;

    public function __construct(private Connection $connection, private Tenant $tenant, private Now $now)
    {
    }

    /** @return string the secret; it is not to be had again */
    public function make(string $name, Account $by, ?string $sensorId = null): string
    {
        $token = Base64UrlSafe::encodeUnpadded(random_bytes(32));
        $this->connection->insert('access_token', [
            'id' => Uuid::v7()->toRfc4122(),
            'site_id' => $by->site->id->toRfc4122(),
            'sensor_id' => $sensorId,
            'name' => $name,
            'token_hash' => hash('sha256', $token),
            'made_at' => $this->now->instant()->rfc3339(),
            'made_by' => $by->id->toRfc4122(),
        ]);

        return $token;
    }

    public function revoke(Site $site, string $id): void
    {
        $this->revokeWhere('id::text', $site, $id);
    }

    public function revokeOfSensor(Site $site, string $sensorId): void
    {
        $this->revokeWhere('sensor_id::text', $site, $sensorId);
    }

    /** @return list<AccessToken> those that read, the latest first */
    public function reading(Site $site): array
    {
        return $this->read('t.site_id = ? AND t.sensor_id IS NULL', [$site->id->toRfc4122()]);
    }

    /** The owner of a secret, whose site is entered. Null for an unknown or revoked one. */
    public function ofSecret(string $secret): ?AccessToken
    {
        $hash = hash('sha256', $secret);
        $this->tenant->hold($hash);
        $token = $this->read('t.token_hash = ? AND t.revoked_at IS NULL', [$hash])[0] ?? null;
        if ($token !== null) {
            $this->tenant->enter(Uuid::fromString($token->siteId));
        }

        return $token;
    }

    /**
     * Whose message it is: signed with the SHA-256 of the secret, which need not travel. Enters its site.
     *
     * @param string $keyId SHA-256 of the SHA-256 of the secret, in hexadecimal
     * @param string $mac HMAC-SHA-256 of the body, in hexadecimal
     *
     * @return AccessToken|null null if it is unknown, was revoked, or did not sign this
     */
    public function ofSigned(string $keyId, string $body, string $mac): ?AccessToken
    {
        $this->tenant->hold($keyId);
        $hash = $this->connection->fetchOne(
            'SELECT token_hash FROM access_token WHERE key_id = ? AND revoked_at IS NULL',
            [$keyId],
        );
        $key = \is_string($hash) ? (string) hex2bin($hash) : '';
        if ($key === '' || !hash_equals(hash_hmac('sha256', $body, $key), $mac)) {
            return null;
        }
        $token = $this->read('t.key_id = ? AND t.revoked_at IS NULL', [$keyId])[0] ?? null;
        if ($token !== null) {
            $this->tenant->enter(Uuid::fromString($token->siteId));
        }

        return $token;
    }

    private function revokeWhere(string $column, Site $site, string $id): void
    {
        $this->connection->executeStatement(
            "UPDATE access_token SET revoked_at = ? WHERE site_id = ? AND $column = ? AND revoked_at IS NULL",
            [$this->now->instant()->rfc3339(), $site->id->toRfc4122(), $id],
        );
    }

    /**
     * @param list<string> $parameters
     *
     * @return list<AccessToken>
     */
    private function read(string $where, array $parameters): array
    {
        $columns = self::COLUMNS;
        /**
         * @var list<array{id: string, site_id: string, sensor_id: string|null, key_id: string, name: string,
         *     made_at: int, initials: string, revoked_at: int|null}> $rows
         */
        $rows = $this->connection->fetchAllAssociative(
            "SELECT $columns FROM access_token t LEFT JOIN account a ON a.id = t.made_by WHERE $where
             ORDER BY t.made_at DESC, t.id DESC",
            $parameters,
        );

        return array_map(
            static fn (array $row): AccessToken => new AccessToken(
                $row['id'],
                $row['site_id'],
                $row['sensor_id'],
                $row['key_id'],
                $row['name'],
                Instant::ofEpoch($row['made_at']),
                $row['initials'],
                $row['revoked_at'] === null ? null : Instant::ofEpoch($row['revoked_at']),
            ),
            $rows,
        );
    }
}
