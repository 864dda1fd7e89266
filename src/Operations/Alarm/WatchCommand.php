<?php

declare(strict_types=1);

namespace Verjuicer\App\Operations\Alarm;

use Doctrine\DBAL\Connection;
use Doctrine\ORM\EntityManagerInterface;
use Psr\Log\LoggerInterface;
use Symfony\Component\Console\Attribute\AsCommand;
use Symfony\Component\Console\Command\Command;
use Symfony\Component\Console\Input\InputInterface;
use Symfony\Component\Console\Input\InputOption;
use Symfony\Component\Console\Output\OutputInterface;
use Symfony\Component\Uid\Uuid;
use Verjuicer\App\Platform\Machine\BackgroundProcesses;
use Verjuicer\App\Platform\Machine\Watchdog;
use Verjuicer\App\Site\Site\Site;
use Verjuicer\App\Site\Tenancy\Tenant;

/**
 * Looks at every site again and again. Of several that run, one leads for as long as it beats; where it dies or hangs,
 * another takes over after fifteen seconds. What is urgent is told for all sites before anything that may take long.
 */
#[AsCommand('verjuicer:watch', 'Raise alarms, tell who is on duty, and tell on; until it is stopped')]
final class WatchCommand extends Command
{
    /** Seconds that a server of mail may take: one that hangs holds up nothing else. */
    private const MAIL_SECONDS = 5;
    private const PAUSE_MILLISECONDS = 1500;

    private bool $isStopped = false;

    public function __construct(
        private readonly AlarmWatch $watch,
        private readonly Tenant $tenant,
        private readonly Connection $connection,
        private readonly BackgroundProcesses $processes,
        private readonly EntityManagerInterface $entities,
        private readonly LoggerInterface $logger,
    ) {
        parent::__construct();
    }

    protected function configure(): void
    {
        $this->addOption('time-limit', null, InputOption::VALUE_REQUIRED, 'Seconds after which it ends', '3600');
        $this->addOption('once', null, InputOption::VALUE_NONE, 'Look once, and end');
    }

    protected function execute(InputInterface $input, OutputInterface $output): int
    {
        $limit = $input->getOption('time-limit');
        $until = time() + (is_numeric($limit) ? (int) $limit : 0);
        $this->stopsWhenTold();
        ini_set('default_socket_timeout', (string) self::MAIL_SECONDS);
        $this->processes->started(BackgroundProcesses::WATCH);
        do {
            if ($this->leads()) {
                $this->atEach($this->watch->tell(...));
                $this->atEach($this->watch->tidy(...));
            }
            if ($input->getOption('once') === true) {
                break;
            }
            usleep(1000 * self::PAUSE_MILLISECONDS);
        } while (!$this->isStopped && time() < $until);
        $this->processes->ended(BackgroundProcesses::WATCH);

        return self::SUCCESS;
    }

    private function leads(): bool
    {
        Watchdog::ping();

        return $this->processes->beat(BackgroundProcesses::WATCH);
    }

    /** @param \Closure(Site): void $do */
    private function atEach(\Closure $do): void
    {
        /** @var list<string> $ids */
        $ids = $this->connection->fetchFirstColumn('SELECT id FROM all_sites() AS id');
        foreach ($ids as $id) {
            if (!$this->leads()) {
                return; // it hung, and another has taken over
            }
            $this->tenant->within(Uuid::fromString($id), function () use ($id, $do): void {
                try {
                    $site = $this->entities->find(Site::class, Uuid::fromString($id));
                    if ($site !== null) {
                        $do($site);
                    }
                } catch (\Doctrine\DBAL\Exception $problem) {
                    // Without its connection it leads no more: it begins anew.
                    throw $problem;
                } catch (\Throwable $problem) {
                    $this->logger->critical('The alarms of site {site} were not looked at.', [
                        'site' => $id,
                        'exception' => $problem,
                    ]);
                }
            });
        }
        // What was read of one look is not what the next finds.
        $this->entities->clear();
    }

    private function stopsWhenTold(): void
    {
        if (\function_exists('pcntl_async_signals')) {
            pcntl_async_signals(true);
            foreach ([\SIGTERM, \SIGINT] as $signal) {
                pcntl_signal($signal, function (): void {
                    $this->isStopped = true;
                });
            }
        }
    }
}
