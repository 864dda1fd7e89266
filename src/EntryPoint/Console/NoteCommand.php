<?php

declare(strict_types=1);

namespace Verjuicer\App\EntryPoint\Console;

use Symfony\Component\Console\Attribute\AsCommand;
use Symfony\Component\Console\Command\Command;
use Symfony\Component\Console\Input\InputArgument;
use Symfony\Component\Console\Input\InputInterface;
use Symfony\Component\Console\Output\OutputInterface;
use Verjuicer\App\Platform\Machine\MachineStates;

#[AsCommand('verjuicer:note', 'Note how a backup or a drill went, for health and for whoever manages the kitchen')]
final class NoteCommand extends Command
{
    public function __construct(private readonly MachineStates $states)
    {
        parent::__construct();
    }

    protected function configure(): void
    {
        $this->addArgument('what', InputArgument::REQUIRED, 'backup or drill')
            ->addArgument('how', InputArgument::REQUIRED, 'good or failed')
            ->addArgument('words', InputArgument::OPTIONAL, 'What there is to say of it', '');
    }

    protected function execute(InputInterface $input, OutputInterface $output): int
    {
        [$what, $how, $words] = array_map($input->getArgument(...), ['what', 'how', 'words']);
        if (($what !== 'backup' && $what !== 'drill') || ($how !== 'good' && $how !== 'failed')) {
            $output->writeln('Write backup or drill, then good or failed.');

            return self::INVALID;
        }
        $this->states->note($what, $how === 'good', \is_string($words) ? $words : '');

        return self::SUCCESS;
    }
}
