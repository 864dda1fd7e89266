<?php

declare(strict_types=1);

namespace Verjuicer\App\Operations\Probe;

use Symfony\Component\Console\Attribute\AsCommand;
use Symfony\Component\Console\Command\Command;
use Symfony\Component\Console\Input\InputInterface;
use Symfony\Component\Console\Output\OutputInterface;

/** Before the broker starts; while it runs the listener does the same. */
#[AsCommand('verjuicer:broker:logins', 'Write the logins of all sensors for the broker of this machine')]
final class BrokerLoginsCommand extends Command
{
    public function __construct(private readonly BrokerLogins $logins)
    {
        parent::__construct();
    }

    protected function execute(InputInterface $input, OutputInterface $output): int
    {
        $output->writeln($this->logins->write() ? 'Written.' : 'Nothing changed.');

        return self::SUCCESS;
    }
}
