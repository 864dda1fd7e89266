<?php

declare(strict_types=1);

namespace Verjuicer\App\EntryPoint\Console;

use Symfony\Component\Console\Attribute\AsCommand;
use Symfony\Component\Console\Command\Command;
use Symfony\Component\Console\Input\InputArgument;
use Symfony\Component\Console\Input\InputInterface;
use Symfony\Component\Console\Output\OutputInterface;
use Verjuicer\App\Platform\Page\ConfiguredAddress;
use Verjuicer\App\Site\People\Accounts;
use Verjuicer\App\Site\People\People;

/** For the operator of the machine, if the only manager has lost their password. */
#[AsCommand('verjuicer:invite', 'Print a one-time link by which somebody sets a new password')]
final class InviteCommand extends Command
{
    public function __construct(
        private readonly Accounts $accounts,
        private readonly People $people,
        private readonly ConfiguredAddress $address,
    ) {
        parent::__construct();
    }

    protected function configure(): void
    {
        $this->addArgument('login', InputArgument::REQUIRED, 'What they log in by');
    }

    protected function execute(InputInterface $input, OutputInterface $output): int
    {
        $login = $input->getArgument('login');
        $person = \is_string($login) ? $this->accounts->named($login) : null;
        if ($person === null || $person->isDisabled()) {
            $output->writeln('Nobody who may log in has that login.');

            return self::INVALID;
        }
        // Recorded as theirs: the console has no name of its own, and its user owns the machine.
        $output->writeln($this->address->of('welcome', ['secret' => $this->people->invite($person, $person)]));

        return self::SUCCESS;
    }
}
