<?php

declare(strict_types=1);

namespace Verjuicer\App\Operations\Alarm;

use Doctrine\DBAL\Connection;
use Symfony\Component\DependencyInjection\Attribute\Autowire;
use Symfony\Component\Uid\Uuid;
use Verjuicer\App\Platform\Now;
use Verjuicer\App\Site\Site\Site;
use Verjuicer\App\Site\Tenancy\Tenant;
use Verjuicer\Core\Measure\Instant;

/**
 * A gateway that sends nothing and shows what it was given: where a kitchen has no other, and in its demo. As a real
 * one it takes the same id once.
 */
final readonly class FakeGateway
{
    private const MOST = 100;

    public function __construct(
        private Connection $connection,
        private Tenant $tenant,
        private Now $now,
        #[Autowire('%kernel.secret%')] private string $secret,
    ) {
    }

    /** What lets in who hands messages to it. */
    public static function key(#[\SensitiveParameter] string $secret): string
    {
        return hash('sha256', 'gateway'.$secret);
    }

    public function isLetIn(string $key): bool
    {
        return hash_equals(self::key($this->secret), $key);
    }

    public function take(Uuid $id, Uuid $site, string $channel, string $to, string $words): void
    {
        $this->tenant->within($site, function () use ($id, $site, $channel, $to, $words): void {
            $this->connection->executeStatement(
                'INSERT INTO stand_in_message (id, site_id, channel, address, words, received_at) '
                .'VALUES (?, ?, ?, ?, ?, ?) ON CONFLICT (id) DO NOTHING',
                [$id->toRfc4122(), $site->toRfc4122(), $channel, $to, $words, $this->now->instant()->rfc3339()],
            );
        });
    }

    /** @return list<FakeGatewayMessage> the latest first */
    public function messages(Site $site): array
    {
        /** @var list<array{channel: string, address: string, words: string, at: int}> $rows */
        $rows = $this->connection->fetchAllAssociative(
            'SELECT channel, address, words, extract(epoch FROM received_at)::bigint AS at FROM stand_in_message '
            .'WHERE site_id = ? ORDER BY received_at DESC, id DESC LIMIT ?',
            [$site->id->toRfc4122(), self::MOST],
        );

        return array_map(
            static fn (array $row): FakeGatewayMessage => new FakeGatewayMessage(
                $row['channel'],
                $row['address'],
                $row['words'],
                Instant::ofEpoch($row['at']),
            ),
            $rows,
        );
    }
}
