<?php

declare(strict_types=1);

namespace Verjuicer\App\Site\Tenancy;

use Doctrine\DBAL\Connection;
use Symfony\Component\Console\ConsoleEvents;
use Symfony\Component\Console\Event\ConsoleTerminateEvent;
use Symfony\Component\DependencyInjection\Attribute\Autowire;
use Symfony\Component\EventDispatcher\Attribute\AsEventListener;

/**
 * Signs the settings that row-level security reads (site, person, token), so that the application's database role alone
 * cannot choose a site. The key derives from APP_SECRET; the database keeps it in a table that only its owner can read.
 */
final readonly class TenancyKey
{
    private string $key;

    public function __construct(
        private Connection $connection,
        #[Autowire('%kernel.secret%')]
        #[\SensitiveParameter]
        string $secret,
    ) {
        $this->key = hash_hmac('sha256', 'verjuicer tenancy', $secret, true);
    }

    /** HMAC-SHA-256 of the three settings, in hexadecimal. */
    public function seal(string $site, string $person, string $token): string
    {
        return hash_hmac('sha256', "$site\n$person\n$token", $this->key);
    }

    /** Stores the key after each migration, as the owner of the tables; also after a restore from another machine. */
    #[AsEventListener(ConsoleEvents::TERMINATE)]
    public function write(ConsoleTerminateEvent $event): void
    {
        if ($event->getCommand()?->getName() !== 'doctrine:migrations:migrate' || $event->getExitCode() !== 0) {
            return;
        }
        $there = "SELECT count(*) FROM pg_class WHERE relname = 'tenancy_key'";
        if ($this->connection->fetchOne($there) === 0) {
            return; // it migrated to a version before
        }
        $padded = str_pad($this->key, 64, "\0"); // RFC 2104, 2
        $this->connection->executeStatement(
            'INSERT INTO tenancy_key (inner_key, outer_key) VALUES (?, ?)
             ON CONFLICT (is_only) DO UPDATE SET inner_key = excluded.inner_key, outer_key = excluded.outer_key',
            ['\x'.bin2hex($padded ^ str_repeat("\x36", 64)), '\x'.bin2hex($padded ^ str_repeat("\x5c", 64))],
        );
    }
}
