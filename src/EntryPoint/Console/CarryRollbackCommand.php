<?php

declare(strict_types=1);

namespace Verjuicer\App\EntryPoint\Console;

use Doctrine\ORM\EntityManagerInterface;
use Symfony\Component\Console\Attribute\AsCommand;
use Symfony\Component\Console\Command\Command;
use Symfony\Component\Console\Input\InputArgument;
use Symfony\Component\Console\Input\InputInterface;
use Symfony\Component\Console\Output\OutputInterface;
use Symfony\Component\Uid\Uuid;
use Verjuicer\App\Ledger\Chain\Seal;
use Verjuicer\App\Reporting\Exchange\KitchenImport;
use Verjuicer\App\Reporting\Exchange\TableImport;
use Verjuicer\App\Reporting\Proof\RollbackLog;
use Verjuicer\App\Site\People\Account;
use Verjuicer\App\Site\People\Role;
use Verjuicer\App\Site\Site\Site;
use Verjuicer\App\Site\Tenancy\Tenant;
use Verjuicer\Core\Measure\Instant;

/**
 * After a database was restored: records the rollback in the chain of each site, and imports later entries. It may be
 * run again: known entries are skipped.
 */
#[AsCommand('verjuicer:rollback:carry', 'Record that the database was put back, and import what was recorded later')]
final class CarryRollbackCommand extends Command
{
    public function __construct(
        private readonly EntityManagerInterface $entities,
        private readonly Tenant $tenant,
        private readonly RollbackLog $rollbacks,
        private readonly KitchenImport $kitchen,
        private readonly TableImport $tables,
    ) {
        parent::__construct();
    }

    protected function configure(): void
    {
        $this->addArgument('folder', InputArgument::REQUIRED, 'The folder that verjuicer:rollback:save wrote');
    }

    protected function execute(InputInterface $input, OutputInterface $output): int
    {
        $folder = $input->getArgument('folder');
        $files = \is_string($folder) ? (array) glob($folder.'/*-*-*-*-*.json') : [];
        $saved = array_filter($files, static fn (mixed $one): bool => \is_string($one)
            && Uuid::isValid(basename($one, '.json')));
        if ($saved === []) {
            $output->writeln('There is nothing saved in that folder: name the one that bin/upgrade --back printed.');

            return self::INVALID;
        }
        $status = self::SUCCESS;
        foreach ($saved as $file) {
            $id = basename((string) $file, '.json');
            $carried = fn (): bool => $this->carry($id, \dirname((string) $file), $output);
            if (!$this->tenant->within(Uuid::fromString($id), $carried)) {
                $status = self::FAILURE;
            }
        }
        $output->writeln('Not carried over: signatures of days, alarms, and readings of sensors that no batch had.');
        $output->writeln('Sign those days again.');

        return $status;
    }

    private function carry(string $id, string $folder, OutputInterface $output): bool
    {
        $site = $this->entities->find(Site::class, Uuid::fromString($id));
        $accounts = $this->entities->getRepository(Account::class);
        $by = $accounts->findOneBy(['site' => $site, 'role' => Role::Owner])
            ?? $accounts->findOneBy(['site' => $site, 'role' => Role::Manager]);
        $cut = json_decode((string) file_get_contents("$folder/$id.json"), true);
        if ($site === null || $by === null || !\is_array($cut)) {
            $output->writeln("Site $id was not here at that moment, or has no owner or manager.");
            $output->writeln('Add it, and try again.');

            return false;
        }
        [$position, $digest, $savedAt] = [$cut['position'] ?? null, $cut['digest'] ?? null, $cut['saved_at'] ?? null];
        if (!\is_int($position) || !\is_string($digest) || !\is_int($savedAt)) {
            $output->writeln("$id.json was not written by verjuicer:rollback:save.");

            return false;
        }
        $this->rollbacks->record($site, new Seal($position, $digest), Instant::ofEpoch($savedAt));
        $kitchen = $this->kitchen->import((string) file_get_contents("$folder/$id.kitchen.json"), $by, false);
        $events = $this->tables->import((string) file_get_contents("$folder/$id.events.csv"), $by, false);
        $output->writeln("{$site->name}: {$kitchen->new} things and {$events->new} events imported.");
        foreach ([...$kitchen->refused, ...$events->refused] as $refused) {
            $output->writeln("  line {$refused['line']}: {$refused['why']}");
        }

        return $kitchen->isGood() && $events->isGood();
    }
}
