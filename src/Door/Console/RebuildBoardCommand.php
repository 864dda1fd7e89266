<?php

declare(strict_types=1);

namespace Verjuicer\App\Door\Console;

use Symfony\Component\Console\Attribute\AsCommand;
use Symfony\Component\Console\Command\Command;
use Symfony\Component\Console\Input\InputInterface;
use Symfony\Component\Console\Output\OutputInterface;
use Verjuicer\App\Platform\Now;
use Verjuicer\App\Projection\Lane\BoardLanes;

#[AsCommand('verjuicer:board:rebuild', 'Make every lane of the board anew from the records')]
final class RebuildBoardCommand extends Command
{
    public function __construct(private readonly BoardLanes $lanes, private readonly Now $now)
    {
        parent::__construct();
    }

    protected function execute(InputInterface $input, OutputInterface $output): int
    {
        $output->writeln(\sprintf('%d lanes made anew.', $this->lanes->rebuild($this->now->instant())));

        return self::SUCCESS;
    }
}
