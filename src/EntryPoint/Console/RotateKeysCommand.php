<?php

declare(strict_types=1);

namespace Verjuicer\App\EntryPoint\Console;

use Doctrine\ORM\EntityManagerInterface;
use Symfony\Component\Console\Attribute\AsCommand;
use Symfony\Component\Console\Command\Command;
use Symfony\Component\Console\Input\InputInterface;
use Symfony\Component\Console\Input\InputOption;
use Symfony\Component\Console\Output\OutputInterface;
use Verjuicer\App\Ledger\Chain\KeyLog;
use Verjuicer\App\Ledger\Chain\SealLog;
use Verjuicer\App\Ledger\Log\Ledger;
use Verjuicer\App\Site\Site\Site;

/** The change of a key is in the chain, with its reason; the key before signs the one after it. */
#[AsCommand('verjuicer:keys:rotate', 'Make a new key for every site, or one, that the present one vouches for')]
final class RotateKeysCommand extends Command
{
    public function __construct(
        private readonly EntityManagerInterface $entities,
        private readonly KeyLog $keys,
        private readonly SealLog $seals,
        private readonly Ledger $ledger,
    ) {
        parent::__construct();
    }

    protected function configure(): void
    {
        $this->addOption('site', null, InputOption::VALUE_REQUIRED, 'The id of a site; all where none is given')
            ->addOption('reason', null, InputOption::VALUE_REQUIRED, 'Why: it is recorded')
            ->addOption('lost', null, InputOption::VALUE_NONE, 'The key before is lost: record the one that is there');
    }

    protected function execute(InputInterface $input, OutputInterface $output): int
    {
        $reason = $input->getOption('reason');
        if (!\is_string($reason) || trim($reason) === '') {
            $output->writeln('Say why, with --reason: it is recorded.');

            return self::INVALID;
        }
        $done = 0;
        foreach ($this->entities->getRepository(Site::class)->findBy([], ['name' => 'ASC']) as $site) {
            if ($input->getOption('site') !== null && $input->getOption('site') !== $site->id->toRfc4122()) {
                continue;
            }
            ++$done;
            if ($input->getOption('lost') === true) {
                if ($this->keys->holds($site)) {
                    $output->writeln("$site->name: the key is there, nothing is lost.");

                    continue;
                }
                $this->ledger->write($site, fn () => $this->keys->lost($site, trim($reason)));
            } else {
                $this->ledger->write($site, fn () => $this->keys->rotate($site, trim($reason)));
            }
            $this->seals->note($site);
            $changes = $this->keys->of($site);
            $output->writeln(\sprintf('%s: sealed with %s from now on.', $site->name, end($changes)->publicKey ?? '?'));
        }
        if ($done === 0) {
            $output->writeln('There is no such site.');

            return self::INVALID;
        }
        $output->writeln('Keep a copy of the folder VERJUICER_KEYS elsewhere.');

        return self::SUCCESS;
    }
}
