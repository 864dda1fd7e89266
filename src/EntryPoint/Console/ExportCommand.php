<?php

declare(strict_types=1);

namespace Verjuicer\App\EntryPoint\Console;

use Symfony\Component\Console\Attribute\AsCommand;
use Symfony\Component\Console\Command\Command;
use Symfony\Component\Console\Input\InputArgument;
use Symfony\Component\Console\Input\InputInterface;
use Symfony\Component\Console\Input\InputOption;
use Symfony\Component\Console\Output\OutputInterface;
use Verjuicer\App\Reporting\Exchange\KitchenExport;
use Verjuicer\App\Reporting\Exchange\ProofExport;
use Verjuicer\App\Reporting\Exchange\RecordExport;
use Verjuicer\App\Site\People\Accounts;
use Verjuicer\Core\Measure\LocalDate;

#[AsCommand(
    'verjuicer:export',
    'Write records, readings, events or seals of the site of an account to standard output',
)]
final class ExportCommand extends Command
{
    public function __construct(
        private readonly Accounts $accounts,
        private readonly RecordExport $export,
        private readonly ProofExport $proof,
        private readonly KitchenExport $kitchen,
    ) {
        parent::__construct();
    }

    protected function configure(): void
    {
        $this->addArgument(
            'what',
            InputArgument::REQUIRED,
            'records or proof (NDJSON; a proof is signed), readings, events or seals (CSV; seals of all days), '
            .'site (JSON: what it has besides)',
        )
            ->addOption('login', null, InputOption::VALUE_REQUIRED, 'An account of the site')
            ->addOption('site', null, InputOption::VALUE_REQUIRED, 'Which, where there are several')
            ->addOption('from', null, InputOption::VALUE_REQUIRED, 'The first day, 2026-11-25', '1970-01-01')
            ->addOption('to', null, InputOption::VALUE_REQUIRED, 'The last day', '9998-12-31');
    }

    protected function execute(InputInterface $input, OutputInterface $output): int
    {
        [$login, $site] = [$input->getOption('login'), $input->getOption('site')];
        $by = \is_string($login) ? $this->accounts->named($login, \is_string($site) ? $site : null) : null;
        [$from, $to] = [self::day($input, 'from'), self::day($input, 'to')];
        if ($by === null || $from === null || $to === null) {
            $output->writeln(
                $by === null
                    ? 'There is nobody of that login there: name somebody with --login (and --site).'
                    : 'Write the days such as 2026-11-25.',
            );

            return self::INVALID;
        }
        $zone = $by->site->zone();
        [$start, $end] = [$from->startIn($zone), $to->plusDays(1)->startIn($zone)];
        $lines = match ($input->getArgument('what')) {
            'records' => $this->export->ndjson($by->site, $start, $end),
            'readings' => $this->export->readings($by->site, $start, $end),
            'events' => $this->export->events($by->site, $start, $end),
            'seals' => $this->export->seals($by->site),
            'proof' => $this->proof->lines($by->site, $start, $end),
            'site' => [$this->kitchen->json($by->site)],
            default => null,
        };
        if ($lines === null) {
            $output->writeln('Write records, proof, readings, events, seals or site.');

            return self::INVALID;
        }
        foreach ($lines as $line) {
            $output->write($line, options: OutputInterface::OUTPUT_RAW);
        }

        return self::SUCCESS;
    }

    private static function day(InputInterface $input, string $option): ?LocalDate
    {
        $given = $input->getOption($option);

        return \is_string($given) ? LocalDate::ofIso($given) : null;
    }
}
