<?php

declare(strict_types=1);

namespace Verjuicer\App\Door\Console;

use Symfony\Component\Console\Attribute\AsCommand;
use Symfony\Component\Console\Command\Command;
use Symfony\Component\Console\Input\InputArgument;
use Symfony\Component\Console\Input\InputInterface;
use Symfony\Component\Console\Input\InputOption;
use Symfony\Component\Console\Output\OutputInterface;
use Verjuicer\App\Book\Exchange\RecordImport;
use Verjuicer\App\Book\Exchange\TableImport;
use Verjuicer\App\Site\People\Accounts;

#[AsCommand(
    'verjuicer:import',
    'Take records in the open format, one a line, or a table of readings or events, '
    .'into the site of an account: all of the file or nothing of it',
)]
final class ImportCommand extends Command
{
    public function __construct(
        private readonly Accounts $accounts,
        private readonly RecordImport $records,
        private readonly TableImport $tables,
    ) {
        parent::__construct();
    }

    protected function configure(): void
    {
        $this->addArgument('file', InputArgument::REQUIRED, 'A file, or - for standard input')
            ->addOption('login', null, InputOption::VALUE_REQUIRED, 'The account that imports')
            ->addOption('site', null, InputOption::VALUE_REQUIRED, 'Its site, where there are several')
            ->addOption('preview', null, InputOption::VALUE_NONE, 'Only say what would happen');
    }

    protected function execute(InputInterface $input, OutputInterface $output): int
    {
        $file = $input->getArgument('file');
        [$login, $site] = [$input->getOption('login'), $input->getOption('site')];
        $by = \is_string($login) ? $this->accounts->named($login, \is_string($site) ? $site : null) : null;
        $text = \is_string($file) ? @file_get_contents($file === '-' ? 'php://stdin' : $file) : false;
        if ($by === null || $text === false) {
            $output->writeln(
                $by === null
                    ? 'There is nobody of that login there: name somebody with --login (and --site).'
                    : 'The file cannot be read: check its path.',
            );

            return self::INVALID;
        }
        $report = (str_starts_with(ltrim($text, "\xEF\xBB\xBF \r\n"), '{') ? $this->records : $this->tables)->import(
            $text,
            $by,
            $input->getOption('preview') === true,
        );
        foreach ($report->refused as $refused) {
            $output->writeln(\sprintf('line %d: %s', $refused['line'], $refused['why']));
        }
        foreach ($report->different as ['code' => $code, 'count' => $count]) {
            $output->writeln(
                \sprintf('%s is here with %d other events: it is left as it is.', $code, $count),
            );
        }
        $output->writeln(
            $report->isGood()
                ? \sprintf('%d new, %d known already.', $report->new, $report->known)
                : 'Nothing was imported.',
        );

        return $report->isGood() ? self::SUCCESS : self::FAILURE;
    }
}
