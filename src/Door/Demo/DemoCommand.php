<?php

declare(strict_types=1);

namespace Verjuicer\App\Door\Demo;

use Doctrine\DBAL\Connection;
use Symfony\Component\Console\Attribute\AsCommand;
use Symfony\Component\Console\Command\Command;
use Symfony\Component\Console\Input\InputInterface;
use Symfony\Component\Console\Output\OutputInterface;

#[AsCommand(
    'verjuicer:demo',
    'Load the Quarry Lane Smokehouse, once: a made-up kitchen whose day is the day it is loaded',
)]
final class DemoCommand extends Command
{
    public function __construct(
        private readonly Connection $connection,
        private readonly StoryLoader $loader,
        private readonly DemoPlans $plans,
    ) {
        parent::__construct();
    }

    protected function execute(InputInterface $input, OutputInterface $output): int
    {
        if ($this->connection->fetchOne('SELECT 1 FROM site WHERE is_practice LIMIT 1') !== false) {
            $output->writeln('The demo is there already.');

            return self::SUCCESS;
        }
        $this->plans->load($this->loader->load(DemoKitchen::story()));
        $output->writeln('The Quarry Lane Smokehouse is loaded.');

        return self::SUCCESS;
    }
}
