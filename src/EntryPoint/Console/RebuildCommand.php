<?php

declare(strict_types=1);

namespace Verjuicer\App\EntryPoint\Console;

use Symfony\Component\Console\Attribute\AsCommand;
use Symfony\Component\Console\Command\Command;
use Symfony\Component\Console\Helper\ProgressBar;
use Symfony\Component\Console\Input\InputInterface;
use Symfony\Component\Console\Input\InputOption;
use Symfony\Component\Console\Output\OutputInterface;
use Verjuicer\App\Projection\Projections;

#[AsCommand('verjuicer:projections:rebuild', 'Make the board and the tables of the reports anew from the records')]
final class RebuildCommand extends Command
{
    public function __construct(private readonly Projections $projections)
    {
        parent::__construct();
    }

    protected function configure(): void
    {
        $this->addOption(
            'outdated',
            null,
            InputOption::VALUE_NONE,
            'Only those that an older version made, as after an update',
        );
    }

    protected function execute(InputInterface $input, OutputInterface $output): int
    {
        $bar = new ProgressBar($output);
        $bar->setFormat(' %current%/%max% [%bar%] %remaining:-6s% left');
        $made = $this->projections->rebuild(
            $input->getOption('outdated') === true,
            static function (int $done, int $total) use ($bar): void {
                $bar->setMaxSteps($total);
                $bar->setProgress($done);
            },
        );
        $bar->clear();
        $output->writeln(\sprintf('%d batches made anew.', $made));

        return self::SUCCESS;
    }
}
