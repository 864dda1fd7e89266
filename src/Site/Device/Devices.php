<?php

declare(strict_types=1);

namespace Verjuicer\App\Site\Device;

use Doctrine\DBAL\Connection;
use Symfony\Component\HttpFoundation\Cookie;
use Symfony\Component\HttpFoundation\Request;
use Symfony\Component\HttpFoundation\RequestStack;
use Symfony\Component\Uid\Uuid;
use Twig\Attribute\AsTwigFunction;
use Verjuicer\App\Platform\Now;
use Verjuicer\App\Site\People\Account;
use Verjuicer\App\Site\Site\Site;
use Verjuicer\App\Site\Tenancy\Tenant;
use Verjuicer\Core\Measure\Instant;

/** The registered tablets of a site; which one a request comes from its cookie says, kept here as a digest only. */
final readonly class Devices
{
    public const COOKIE = 'device';
    private const COLUMNS = <<<'SQL'
    d.id, d.site_id, d.name, d.quiet_minutes, extract(epoch FROM d.registered_at)::bigint AS registered_at,
    coalesce(a.initials, '') AS initials, extract(epoch FROM d.revoked_at)::bigint AS revoked_at
    SQL;

    public function __construct(
        private Connection $connection,
        private RequestStack $requests,
        private Tenant $tenant,
        private Now $now,
    ) {
    }

    /** @return Cookie registers this browser as the device */
    public function register(string $name, int $quietMinutes, Account $by): Cookie
    {
        $token = rtrim(strtr(base64_encode(random_bytes(32)), '+/', '-_'), '=');
        $this->connection->insert('device', [
            'id' => Uuid::v7()->toRfc4122(),
            'site_id' => $by->site->id->toRfc4122(),
            'name' => $name,
            'token_hash' => hash('sha256', $token),
            'quiet_minutes' => $quietMinutes,
            'registered_at' => $this->now->instant()->rfc3339(),
            'registered_by' => $by->id->toRfc4122(),
        ]);

        return Cookie::create(self::COOKIE, $token, '+2 years', '/', null, null, true, false, Cookie::SAMESITE_STRICT);
    }

    public function revoke(Site $site, string $id): void
    {
        $this->connection->executeStatement(
            'UPDATE device SET revoked_at = ? WHERE site_id = ? AND id::text = ? AND revoked_at IS NULL',
            [$this->now->instant()->rfc3339(), $site->id->toRfc4122(), $id],
        );
    }

    public function ofRequest(Request $request): ?Device
    {
        $token = $request->cookies->getString(self::COOKIE);
        if ($token === '') {
            return null;
        }
        $this->tenant->hold(hash('sha256', $token));

        return $this->read('d.token_hash = ? AND d.revoked_at IS NULL', [hash('sha256', $token)])[0] ?? null;
    }

    /** Minutes without a touch after which a shared tablet asks who stands there; null where this is none. */
    #[AsTwigFunction('quiet_minutes')]
    public function quietMinutes(): ?int
    {
        $request = $this->requests->getMainRequest();

        return $request === null ? null : $this->ofRequest($request)?->quietMinutes;
    }

    /** @return list<Device> the latest first */
    public function of(Site $site): array
    {
        return $this->read('d.site_id = ?', [$site->id->toRfc4122()]);
    }

    /**
     * @param list<string> $parameters
     *
     * @return list<Device>
     */
    private function read(string $where, array $parameters): array
    {
        $columns = self::COLUMNS;
        /**
         * @var list<array{id: string, site_id: string, name: string, quiet_minutes: int, registered_at: int,
         *     initials: string, revoked_at: int|null}> $rows
         */
        $rows = $this->connection->fetchAllAssociative(
            "SELECT $columns FROM device d LEFT JOIN account a ON a.id = d.registered_by WHERE $where
             ORDER BY d.registered_at DESC",
            $parameters,
        );

        return array_map(
            static fn (array $row): Device => new Device(
                $row['id'],
                $row['site_id'],
                $row['name'],
                $row['quiet_minutes'],
                Instant::ofEpoch($row['registered_at']),
                $row['initials'],
                $row['revoked_at'] === null ? null : Instant::ofEpoch($row['revoked_at']),
            ),
            $rows,
        );
    }
}
