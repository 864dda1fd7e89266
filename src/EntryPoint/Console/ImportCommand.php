<?php

declare(strict_types=1);

namespace Verjuicer\App\EntryPoint\Console;

use Symfony\Component\Console\Attribute\AsCommand;
use Symfony\Component\Console\Command\Command;
use Symfony\Component\Console\Command\SignalableCommandInterface;
use Symfony\Component\Console\Input\InputArgument;
use Symfony\Component\Console\Input\InputInterface;
use Symfony\Component\Console\Input\InputOption;
use Symfony\Component\Console\Output\OutputInterface;
use Symfony\Component\Filesystem\Filesystem;
use Symfony\Component\Uid\Uuid;
use Verjuicer\App\Reporting\Exchange\ImportCancelled;
use Verjuicer\App\Reporting\Exchange\ImportKind;
use Verjuicer\App\Reporting\Exchange\ImportProgress;
use Verjuicer\App\Reporting\Exchange\ImportReport;
use Verjuicer\App\Reporting\Exchange\Imports;
use Verjuicer\App\Reporting\Exchange\KitchenImport;
use Verjuicer\App\Reporting\Exchange\RecordImport;
use Verjuicer\App\Reporting\Exchange\RecordLines;
use Verjuicer\App\Reporting\Exchange\TableImport;
use Verjuicer\App\Site\People\Account;
use Verjuicer\App\Site\People\Accounts;

#[AsCommand(
    'verjuicer:import',
    'Take records in the open format, one a line, a table of readings or events, or what a kitchen has besides, '
    .'into the site of an account; stopped, the same command goes on',
)]
final class ImportCommand extends Command implements SignalableCommandInterface
{
    private const HEAD = 64; // bytes, to tell records from a table

    private bool $isStopped = false;

    public function __construct(
        private readonly Accounts $accounts,
        private readonly RecordImport $records,
        private readonly TableImport $tables,
        private readonly KitchenImport $kitchen,
        private readonly Imports $imports,
        private readonly Filesystem $files,
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

    /** @return list<int> */
    public function getSubscribedSignals(): array
    {
        return [\SIGINT, \SIGTERM];
    }

    public function handleSignal(int $signal, int|false $previousExitCode = 0): int|false
    {
        $this->isStopped = true;

        return false;
    }

    protected function execute(InputInterface $input, OutputInterface $output): int
    {
        [$file, $login, $site] = [
            $input->getArgument('file'),
            $input->getOption('login'),
            $input->getOption('site'),
        ];
        $by = \is_string($login) ? $this->accounts->named($login, \is_string($site) ? $site : null) : null;
        if ($by === null) {
            $output->writeln('There is nobody of that login there: name somebody with --login (and --site).');

            return self::INVALID;
        }
        $handed = null;
        if ($file === '-') {
            $file = $handed = $this->files->tempnam(sys_get_temp_dir(), 'import');
            file_put_contents($file, \STDIN);
        }
        try {
            if (!\is_string($file) || !is_file($file) || !is_readable($file)) {
                $output->writeln('The file cannot be read: check its path.');

                return self::INVALID;
            }

            return $this->took($file, $by, $input->getOption('preview') === true, $output);
        } finally {
            $this->files->remove($handed ?? []);
        }
    }

    private function took(string $file, Account $by, bool $isPreview, OutputInterface $output): int
    {
        $head = ltrim((string) file_get_contents($file, length: self::HEAD), "\xEF\xBB\xBF \r\n");
        $what = match (true) {
            KitchenImport::isOne($head) => ImportKind::Site,
            str_starts_with($head, '{') => ImportKind::Records,
            default => ImportKind::Tables,
        };
        $take = fn (ImportProgress $taking): ImportReport => match ($what) {
            ImportKind::Records => $this->records->import(RecordLines::ofFile($file), $by, $isPreview, $taking),
            ImportKind::Site => $this->kitchen->import((string) file_get_contents($file), $by, $isPreview),
            default => $this->tables->import((string) file_get_contents($file), $by, $isPreview, $taking),
        };
        if ($isPreview) {
            return $this->told($take(new ImportProgress()), $output);
        }
        $import = $this->imports->keep(Uuid::v7(), $by, $what, null, (string) hash_file('sha256', $file));
        if ($import->isAsked) {
            $output->writeln('It was stopped before: what is not in yet is taken in.');
        }
        $status = self::FAILURE;
        $isOurs = $this->imports->alone($import, function () use ($import, $take, $output, &$status): void {
            $this->imports->begin($import);
            $taking = $this->imports->taking($import, fn (): bool => $this->isStopped);
            try {
                $report = $take($taking);
                $this->imports->finish($import, $report);
                $status = $this->told($report, $output);
            } catch (ImportCancelled) {
                $output->writeln(
                    \sprintf(
                        'Stopped: %d of %d events are in. The same command goes on with the rest.',
                        $taking->done,
                        $taking->total,
                    ),
                );
            }
        });
        if (!$isOurs) {
            $output->writeln('This file is being taken in already.');
        }

        return $status;
    }

    private function told(ImportReport $report, OutputInterface $output): int
    {
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
