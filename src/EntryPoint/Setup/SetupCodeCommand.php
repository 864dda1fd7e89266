<?php

declare(strict_types=1);

namespace Verjuicer\App\EntryPoint\Setup;

use Symfony\Component\Console\Attribute\AsCommand;
use Symfony\Component\Console\Command\Command;
use Symfony\Component\Console\Input\InputInterface;
use Symfony\Component\Console\Output\OutputInterface;

#[AsCommand('verjuicer:setup-code', 'Print the one-time code that opens the set-up page, where no site of your own is')]
final class SetupCodeCommand extends Command
{
    public function __construct(private readonly SetupCode $code)
    {
        parent::__construct();
    }

    protected function execute(InputInterface $input, OutputInterface $output): int
    {
        if (!$this->code->isOpen()) {
            $output->writeln('A site is set up already: its people log in, and a manager adds others.');

            return self::SUCCESS;
        }
        $output->writeln($this->code->make());

        return self::SUCCESS;
    }
}
