<?php

declare(strict_types=1);

namespace Verjuicer\App\Door\Demo;

use Doctrine\DBAL\Connection;
use Symfony\Component\Console\Attribute\AsCommand;
use Symfony\Component\Console\Command\Command;
use Symfony\Component\Console\Input\InputInterface;
use Symfony\Component\Console\Output\OutputInterface;
use Symfony\Component\DependencyInjection\Attribute\Autowire;
use Symfony\Component\Filesystem\Filesystem;

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
        private readonly DemoSensors $sensors,
        private readonly DemoDuty $duty,
        #[Autowire('%kernel.project_dir%/var/simulate.json')] private readonly string $secrets,
    ) {
        parent::__construct();
    }

    protected function execute(InputInterface $input, OutputInterface $output): int
    {
        if ($this->connection->fetchOne('SELECT 1 FROM site WHERE is_practice LIMIT 1') !== false) {
            $output->writeln('The demo is there already.');

            return self::SUCCESS;
        }
        $site = $this->loader->load(DemoKitchen::story());
        $this->plans->load($site);
        $this->duty->load($site);
        // bin/simulate plays them, and nobody else may.
        $files = new Filesystem();
        $files->dumpFile($this->secrets, json_encode($this->sensors->load($site), \JSON_THROW_ON_ERROR));
        $files->chmod($this->secrets, 0o600);
        $this->sensors->place($site);
        $output->writeln('The Quarry Lane Smokehouse is loaded.');

        return self::SUCCESS;
    }
}
