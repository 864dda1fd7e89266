<?php

declare(strict_types=1);

namespace Verjuicer\App\Reporting\Packet;

use Doctrine\DBAL\Connection;
use Doctrine\DBAL\ParameterType;
use Symfony\Component\Messenger\MessageBusInterface;
use Symfony\Component\Uid\Uuid;
use Verjuicer\App\Platform\Paging\Page;
use Verjuicer\App\Platform\Paging\PageKey;
use Verjuicer\App\Platform\Wording\Language;
use Verjuicer\App\Site\People\Account;
use Verjuicer\App\Site\Site\Site;
use Verjuicer\App\Site\Tenancy\Tenant;
use Verjuicer\Core\Measure\Instant;

/** The packets of a site: asked for, made in the background, read by a link that expires. */
final readonly class Packets
{
    private const MOST = 1000;
    private const COLUMNS = <<<'SQL'
    p.id, extract(epoch FROM p.at)::bigint AS at, p.scope, p.paper, p.language, p.done, p.total, extract(epoch
      FROM p.finished_at)::bigint AS finished_at, p.problem,
    extract(epoch FROM p.expires_at)::bigint AS expires_at, p.site_id, a.initials AS by, p.sha256
    SQL;

    public function __construct(
        private Connection $connection,
        private MessageBusInterface $bus,
        private Tenant $tenant,
    ) {
    }

    /**
     * Asks for it; it is made by the worker. The same again is made once.
     *
     * @param Language|null $language null for that of the site
     */
    public function ask(
        Uuid $id,
        Account $by,
        Instant $now,
        PacketScope $scope,
        string $paper,
        ?Language $language = null,
    ): void {
        $this->connection->executeStatement(
            'INSERT INTO packet (id, site_id, account_id, at, scope, paper, language) VALUES (?, ?, ?, ?, ?, ?, ?) '
            .'ON CONFLICT (id) DO NOTHING',
            [
                $id->toRfc4122(),
                $by->site->id->toRfc4122(),
                $by->id->toRfc4122(),
                $now->rfc3339(),
                $scope->json(),
                $paper,
                ($language ?? $by->site->language)->value,
            ],
        );
        $this->bus->dispatch(new MakePacket($id->toRfc4122()));
    }

    /** Has one that could not be made made again. */
    public function again(Packet $packet): void
    {
        $this->connection->executeStatement(
            'UPDATE packet SET problem = NULL, done = 0 WHERE id = ? AND finished_at IS NULL',
            [$packet->id],
        );
        $this->bus->dispatch(new MakePacket($packet->id));
    }

    /** @return list<Packet> all volumes of a packet, in order: itself alone if it is one */
    public function volumes(Packet $packet): array
    {
        if ($packet->scope->volumes === 1) {
            return [$packet];
        }
        $all = $this->read(
            "p.site_id = ? AND p.scope->>'whole' = ?",
            [$packet->siteId, $packet->scope->whole],
            self::MOST,
        );
        usort($all, static fn (Packet $one, Packet $other): int => $one->scope->volume <=> $other->scope->volume);

        return $all;
    }

    public function find(string $id): ?Packet
    {
        return Uuid::isValid($id) ? $this->read('p.id = ?', [$id])[0] ?? null : null;
    }

    /** @return Page<Packet> the latest first */
    public function of(Site $site, ?PageKey $after): Page
    {
        $from = $after ?? PageKey::first();
        $packets = $this->read(
            'p.site_id = ? AND (p.at, p.id) < (to_timestamp(?), ?::uuid)',
            [$site->id->toRfc4122(), $from->place, $from->id],
            Page::ROWS + 1,
        );

        return Page::of(
            $packets,
            static fn (Packet $packet): PageKey => new PageKey($packet->askedAt->epoch, $packet->id),
        );
    }

    /** The packet of a link, while it is valid. */
    public function shared(string $token, Instant $now): ?Packet
    {
        $this->tenant->hold(hash('sha256', $token));
        $site = $this->connection->fetchOne('SELECT site_id FROM packet WHERE token_hash = ?', [
            hash('sha256', $token),
        ]);
        if (!\is_string($site)) {
            return null;
        }
        $this->tenant->enter(Uuid::fromString($site));

        return $this->read('p.token_hash = ? AND p.expires_at > ? AND p.finished_at IS NOT NULL', [
            hash('sha256', $token),
            $now->rfc3339(),
        ])[0] ?? null;
    }

    /**
     * @return string the token of a new link, shown once: only its hash is kept; a link before it opens nothing any
     *     more
     */
    public function share(Packet $packet, Instant $until): string
    {
        $token = bin2hex(random_bytes(24));
        $this->connection->executeStatement('UPDATE packet SET token_hash = ?, expires_at = ? WHERE id = ?', [
            hash('sha256', $token),
            $until->rfc3339(),
            $packet->id,
        ]);

        return $token;
    }

    /** A link that was handed on opens nothing any more. */
    public function withdraw(Packet $packet): void
    {
        $this->connection->executeStatement('UPDATE packet SET token_hash = NULL, expires_at = NULL WHERE id = ?', [
            $packet->id,
        ]);
    }

    /** @return list<array{at: Instant, by: string, address: string}> openings; '' for a person with a link */
    public function openings(Packet $packet): array
    {
        /** @var list<array{at: int, by: string, address: string}> $rows */
        $rows = $this->connection->fetchAllAssociative(
            "SELECT extract(epoch FROM l.at)::bigint AS at, coalesce(a.name, '') AS by, l.address FROM people_log l "
            ."LEFT JOIN account a ON a.id = l.account_id WHERE l.site_id = ? AND l.what = 'packet_opened' "
            .'AND l.about LIKE ? ORDER BY l.at DESC, l.id DESC LIMIT 100',
            [$packet->siteId, $packet->id.'%'],
        );

        return array_map(static fn (array $row): array => ['at' => Instant::ofEpoch($row['at'])] + $row, $rows);
    }

    public function progress(Packet $packet, int $done, int $total): void
    {
        $this->connection->executeStatement('UPDATE packet SET done = ?, total = ? WHERE id = ?', [
            $done,
            $total,
            $packet->id,
        ]);
    }

    public function finish(Packet $packet, Instant $now, string $pdf): void
    {
        $this->connection->executeStatement(
            'UPDATE packet SET finished_at = ?, pdf = ?, problem = NULL, sha256 = ? '
            .'WHERE id = ? AND finished_at IS NULL',
            [$now->rfc3339(), $pdf, hash('sha256', $pdf), $packet->id],
            [2 => ParameterType::STRING, 1 => ParameterType::LARGE_OBJECT],
        );
    }

    public function fail(Packet $packet, string $problem): void
    {
        $this->connection->executeStatement('UPDATE packet SET problem = ? WHERE id = ?', [
            mb_substr($problem, 0, 500),
            $packet->id,
        ]);
    }

    public function pdf(Packet $packet): string
    {
        $pdf = $this->connection->fetchOne('SELECT pdf FROM packet WHERE id = ?', [$packet->id]);

        return \is_resource($pdf) ? (string) stream_get_contents($pdf) : (\is_string($pdf) ? $pdf : '');
    }

    /**
     * @param list<string|int> $parameters
     *
     * @return list<Packet>
     */
    private function read(string $where, array $parameters, int $most = 1): array
    {
        $columns = self::COLUMNS;
        /**
         * @var list<array{id: string, at: int, scope: string, paper: string, language: string, done: int,
         *     total: int|null, finished_at: int|null, problem: string|null, expires_at: int|null, site_id: string,
         *     by: string, sha256: string|null}> $rows
         */
        $rows = $this->connection->fetchAllAssociative(
            "SELECT $columns FROM packet p JOIN account a ON a.id = p.account_id WHERE $where ORDER BY p.at DESC, "
            ."p.id DESC LIMIT $most",
            $parameters,
        );

        return array_map(
            static fn (array $row): Packet => new Packet(
                $row['id'],
                Instant::ofEpoch($row['at']),
                PacketScope::ofJson($row['scope']),
                $row['paper'],
                Language::from($row['language']),
                $row['done'],
                $row['total'],
                $row['finished_at'] === null ? null : Instant::ofEpoch($row['finished_at']),
                $row['problem'],
                $row['expires_at'] === null ? null : Instant::ofEpoch($row['expires_at']),
                $row['site_id'],
                $row['by'],
                $row['sha256'],
            ),
            $rows,
        );
    }
}
