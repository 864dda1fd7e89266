<?php

declare(strict_types=1);

namespace Verjuicer\App\EntryPoint\Health;

use Doctrine\DBAL\Connection;
use Doctrine\DBAL\Exception;
use Doctrine\Migrations\DependencyFactory;
use Symfony\Component\DependencyInjection\Attribute\Autowire;
use Verjuicer\App\Ledger\Chain\RecordingClock;
use Verjuicer\App\Platform\Machine\BackgroundProcesses;
use Verjuicer\App\Platform\Machine\MachineState;
use Verjuicer\App\Platform\Machine\MachineStates;
use Verjuicer\App\Platform\Now;
use Verjuicer\App\Site\Tenancy\Tenant;
use Verjuicer\Core\Measure\Instant;

/** The state of the machine. */
final readonly class Health
{
    private const LONGEST_WAIT_SECONDS = 300;

    public function __construct(
        private Connection $connection,
        #[Autowire(service: 'doctrine.migrations.dependency_factory')] private DependencyFactory $migrations,
        private MachineStates $machine,
        private BackgroundProcesses $processes,
        private RecordingClock $clock,
        private Tenant $tenant,
        private Now $now,
    ) {
    }

    /** @return array<string, bool> conditions for saving an entry */
    public function readiness(): array
    {
        try {
            $this->connection->fetchOne('SELECT 1');
        } catch (Exception) {
            return ['database' => false];
        }

        if (\count($this->migrations->getMigrationStatusCalculator()->getNewMigrations()) > 0) {
            return ['database' => true, 'schema' => false];
        }

        return [
            'database' => true,
            'schema' => true,
            'tenancy' => $this->tenant->isTrusted(),
            'queue' => $this->oldestWait() < self::LONGEST_WAIT_SECONDS,
            'clock' => RecordingClock::isTrusted($this->newestLink(), $this->now->instant())
                && $this->clock->setBy() <= RecordingClock::BEHIND_SECONDS,
        ] + $this->processes->health();
    }

    /** @return array<string, bool> conditions for keeping entries safe; a late backup does not stop entries */
    public function safety(): array
    {
        return array_map(
            static fn (MachineState $one): bool => !$one->needsSomebody(),
            $this->machine->all(),
        );
    }

    /** @return array<string, array{string, int}> help and value by name */
    public function figures(): array
    {
        // Of all sites at once: these numbers are all the application's role may know of that.
        $whole = $this->connection->fetchAssociative(
            <<<'SQL'
            SELECT entries, open_batches, behind,
                   coalesce(extract(epoch FROM now() - last_link), 0)::bigint AS last_link FROM whole_figures()
            SQL,
        );
        $whole = static fn (string $name): int => \is_array($whole) && \is_int($whole[$name]) ? $whole[$name] : 0;

        return [
            'entries' => ['Entries recorded.', $whole('entries')],
            'batches_open' => ['Batches on the board.', $whole('open_batches')],
            'queue_waiting' => [
                'Messages that wait for the worker.',
                $this->number("SELECT count(*) FROM messenger_messages WHERE queue_name <> 'failed'"),
            ],
            'queue_oldest_seconds' => ['How long the oldest of them has waited.', $this->oldestWait()],
            'queue_failed' => [
                'Messages that failed and were kept.',
                $this->number("SELECT count(*) FROM messenger_messages WHERE queue_name = 'failed'"),
            ],
            'projections_behind' => [
                'Batches whose read tables do not show the last entry yet.',
                $whole('behind'),
            ],
            'chain_last_link_seconds' => ['How long ago the last link of the chain was made.', $whole('last_link')],
            ...$this->sinceLast(),
            'sessions' => ['Sessions that last.', $this->number('SELECT count(*) FROM session')],
            'database_bytes' => ['Size of the database.', $this->number('SELECT pg_database_size(current_database())')],
        ];
    }

    /** @return array<string, array{string, int}> */
    private function sinceLast(): array
    {
        $figures = [];
        foreach ($this->machine->all() as $what => $state) {
            $seconds = $this->now->instant()->epoch - $state->at->epoch;
            $figures[$what.'_seconds'] = ["How long ago the last $what ended.", $seconds];
            $figures[$what.'_good'] = ["Whether the last $what went well.", (int) $state->isGood];
        }

        return $figures;
    }

    private function oldestWait(): int
    {
        return $this->number(
            <<<'SQL'
            SELECT coalesce(extract(epoch FROM :now::timestamp - min(available_at)), 0)::bigint
            FROM messenger_messages WHERE queue_name <> 'failed' AND delivered_at IS NULL
              AND available_at <= :now::timestamp
            SQL,
            ['now' => gmdate('Y-m-d H:i:s', $this->now->instant()->epoch)],
        );
    }

    /** Of all sites; null before anything was recorded. */
    private function newestLink(): ?Instant
    {
        $epoch = $this->number('SELECT coalesce(extract(epoch FROM newest_link()), 0)::bigint');

        return $epoch === 0 ? null : Instant::ofEpoch($epoch);
    }

    /** @param array<string, string> $parameters */
    private function number(string $sql, array $parameters = []): int
    {
        $number = $this->connection->fetchOne($sql, $parameters);

        return \is_int($number) ? $number : 0;
    }
}
