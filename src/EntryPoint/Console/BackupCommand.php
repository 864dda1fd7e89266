<?php

declare(strict_types=1);

namespace Verjuicer\App\EntryPoint\Console;

use Symfony\Component\Console\Attribute\AsCommand;
use Symfony\Component\Console\Command\Command;
use Symfony\Component\Console\Input\InputArgument;
use Symfony\Component\Console\Input\InputInterface;
use Symfony\Component\Console\Output\OutputInterface;
use Symfony\Component\DependencyInjection\Attribute\Autowire;
use Symfony\Component\Process\Process;

#[AsCommand(
    'verjuicer:backup',
    "Write the whole database to a file with PostgreSQL's own dump, and read it back to see that it is whole",
)]
final class BackupCommand extends Command
{
    public function __construct(#[Autowire(env: 'DATABASE_URL')] private readonly string $database)
    {
        parent::__construct();
    }

    protected function configure(): void
    {
        $this->addArgument('file', InputArgument::REQUIRED, 'Where to write it; it must not be there yet');
    }

    protected function execute(InputInterface $input, OutputInterface $output): int
    {
        $file = $input->getArgument('file');
        if (!\is_string($file) || file_exists($file)) {
            $output->writeln('The file is there already: a backup never overwrites another.');

            return self::INVALID;
        }
        (new Process(
            [
                'pg_dump', '--format=custom', '--no-owner', '--file='.$file,
                // Sessions are no records, and are not backed up.
                '--exclude-table-data=session', '--exclude-table-data=cache_items',
                '--dbname='.strtok($this->database, '?'),
            ],
            timeout: null,
        ))->mustRun();
        $list = new Process(['pg_restore', '--list', $file], timeout: null);
        $list->mustRun();
        $output->writeln(
            \sprintf(
                'Backed up: %d parts, %s bytes, SHA-256 %s.',
                substr_count($list->getOutput(), "\n"),
                number_format((float) filesize($file)),
                (string) hash_file('sha256', $file),
            ),
        );

        $output->writeln(
            'The keys of the sites and their seals are not in it: keep a copy of the folder VERJUICER_KEYS elsewhere.',
        );

        return self::SUCCESS;
    }
}
