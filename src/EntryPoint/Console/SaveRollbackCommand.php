<?php

declare(strict_types=1);

namespace Verjuicer\App\EntryPoint\Console;

use Doctrine\DBAL\Connection;
use Doctrine\ORM\EntityManagerInterface;
use Symfony\Component\Console\Attribute\AsCommand;
use Symfony\Component\Console\Command\Command;
use Symfony\Component\Console\Input\InputArgument;
use Symfony\Component\Console\Input\InputInterface;
use Symfony\Component\Console\Output\OutputInterface;
use Symfony\Component\Filesystem\Filesystem;
use Symfony\Component\Uid\Uuid;
use Verjuicer\App\Ledger\Chain\SiteChain;
use Verjuicer\App\Platform\Now;
use Verjuicer\App\Reporting\Exchange\KitchenExport;
use Verjuicer\App\Reporting\Exchange\RecordExport;
use Verjuicer\App\Site\Site\Site;
use Verjuicer\App\Site\Tenancy\Tenant;
use Verjuicer\Core\Measure\Instant;

/** Before a database is restored: writes each site's later entries, for `verjuicer:rollback:carry`. */
#[AsCommand('verjuicer:rollback:save', 'Write what was recorded since, into a folder, before the database is put back')]
final class SaveRollbackCommand extends Command
{
    public function __construct(
        private readonly Connection $connection,
        private readonly EntityManagerInterface $entities,
        private readonly Tenant $tenant,
        private readonly SiteChain $chain,
        private readonly RecordExport $records,
        private readonly KitchenExport $kitchen,
        private readonly Filesystem $files,
        private readonly Now $now,
    ) {
        parent::__construct();
    }

    protected function configure(): void
    {
        $this->addArgument('since', InputArgument::REQUIRED, 'The moment, such as "2026-12-01 21:00:00+00"')
            ->addArgument('folder', InputArgument::REQUIRED, 'A folder that only its owner may read');
    }

    protected function execute(InputInterface $input, OutputInterface $output): int
    {
        [$since, $folder] = [$input->getArgument('since'), $input->getArgument('folder')];
        $moment = \is_string($since) ? date_create_immutable($since) : false;
        if ($moment === false || !\is_string($folder)) {
            $output->writeln('Write the moment such as "2026-12-01 21:00:00+00".');

            return self::INVALID;
        }
        $this->files->mkdir($folder, 0o700);
        /** @var list<string> $ids */
        $ids = $this->connection->fetchFirstColumn('SELECT id FROM all_sites() AS id');
        foreach ($ids as $id) {
            $this->tenant->within(Uuid::fromString($id), function () use ($id, $moment, $folder): void {
                $site = $this->entities->find(Site::class, Uuid::fromString($id));
                $cut = $site === null ? null : $this->chain->seal($site);
                if ($site === null || $cut === null) {
                    return;
                }
                $this->files->dumpFile("$folder/$id.kitchen.json", $this->kitchen->json($site));
                $table = fopen("$folder/$id.events.csv", 'w');
                foreach ($this->records->eventsSince($site, Instant::ofEpoch($moment->getTimestamp())) as $line) {
                    \assert($table !== false, 'the folder was just made');
                    fwrite($table, $line);
                }
                // Last: where it stands, the others are whole.
                $this->files->dumpFile("$folder/$id.json", json_encode([
                    'position' => $cut->position,
                    'digest' => $cut->digest,
                    'saved_at' => $this->now->instant()->epoch,
                ], \JSON_THROW_ON_ERROR));
            });
        }
        $output->writeln(\sprintf('Saved %d sites.', \count($ids)));

        return self::SUCCESS;
    }
}
