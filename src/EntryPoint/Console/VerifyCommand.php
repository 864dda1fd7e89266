<?php

declare(strict_types=1);

namespace Verjuicer\App\EntryPoint\Console;

use Doctrine\ORM\EntityManagerInterface;
use Symfony\Component\Console\Attribute\AsCommand;
use Symfony\Component\Console\Command\Command;
use Symfony\Component\Console\Input\InputInterface;
use Symfony\Component\Console\Input\InputOption;
use Symfony\Component\Console\Output\OutputInterface;
use Verjuicer\App\Ledger\Chain\Seal;
use Verjuicer\App\Ledger\Chain\SealLog;
use Verjuicer\App\Ledger\Chain\SiteChain;
use Verjuicer\App\Ledger\Chain\SiteKeys;
use Verjuicer\App\Platform\Machine\MachineStates;
use Verjuicer\App\Reporting\Proof\Verification;
use Verjuicer\App\Site\Site\Site;

#[AsCommand(
    'verjuicer:verify',
    'Walk the chain of every site and name the first place where it breaks; exit 1 if one does',
)]
final class VerifyCommand extends Command
{
    public function __construct(
        private readonly EntityManagerInterface $entities,
        private readonly SiteChain $chain,
        private readonly Verification $verification,
        private readonly SiteKeys $keys,
        private readonly MachineStates $states,
    ) {
        parent::__construct();
    }

    protected function configure(): void
    {
        $this->addOption('note', null, InputOption::VALUE_NONE, 'Note how it went, as the timer does')->addOption(
            'expect',
            null,
            InputOption::VALUE_REQUIRED | InputOption::VALUE_IS_ARRAY,
            'A digest that was kept elsewhere, as LINK:DIGEST from a day sheet, '
            .'a packet or an export of seals: one site must have it',
        )->addOption(
            'seals',
            null,
            InputOption::VALUE_REQUIRED | InputOption::VALUE_IS_ARRAY,
            'A file of signed seals that was kept elsewhere, as it came by mail',
        )->addOption(
            'copy',
            null,
            InputOption::VALUE_NONE,
            'It is a copy of an earlier moment: what was sealed since cannot be in it',
        );
    }

    protected function execute(InputInterface $input, OutputInterface $output): int
    {
        $status = self::SUCCESS;
        $expected = [];
        foreach ((array) $input->getOption('expect') as $one) {
            if (!\is_string($one) || preg_match('/^([1-9]\d{0,17}):([0-9a-f]{64})$/D', $one, $part) !== 1) {
                $output->writeln('Write a digest as it is printed, LINK:DIGEST, with its 64 characters.');

                return self::INVALID;
            }
            $expected[$one] = new Seal((int) $part[1], $part[2]);
        }
        $handed = [];
        foreach ((array) $input->getOption('seals') as $file) {
            $seals = \is_string($file) ? SealLog::read($file) : [];
            if ($seals === []) {
                $output->writeln('There is no signed seal in that file: give one as it came by mail.');

                return self::INVALID;
            }
            foreach ($seals as $seal) {
                $handed[$seal->siteId][] = $seal;
            }
        }
        $sites = $this->entities->getRepository(Site::class)->findBy([], ['name' => 'ASC']);
        foreach ($this->keys->withoutTheirSite(...$sites) as $id) {
            $status = self::FAILURE;
            $output->writeln("There is no site $id here, of which a key or seals are kept: it was removed.");
        }
        if ($sites === []) {
            $status = self::FAILURE;
            $output->writeln('There is no site here: nothing can be verified.');
        }
        foreach ($sites as $site) {
            $expected = array_filter(
                $expected,
                fn (Seal $seal): bool => $this->chain->at($site, $seal->position)?->digest !== $seal->digest,
            );
            $id = $site->id->toRfc4122();
            $verified = $this->verification->of(
                $site,
                handed: $handed[$id] ?? [],
                isCopy: $input->getOption('copy') === true,
            );
            unset($handed[$id]);
            foreach ($verified->notes as $note) {
                $output->writeln("$site->name: $note");
            }
            foreach ($verified->breaks as $break) {
                $status = self::FAILURE;
                $output->writeln("$site->name: $break");
            }
            if ($verified->holds()) {
                $output->writeln(\sprintf('%s: %d links, all hold.', $site->name, $verified->links));
            }
        }

        foreach ($expected as $seal) {
            $status = self::FAILURE;
            $output->writeln(
                \sprintf(
                    'No site has the digest %s at link %d: what was recorded up to it is not what it was when that '
                    .'was written down.',
                    $seal->digest,
                    $seal->position,
                ),
            );
        }

        foreach (array_keys($handed) as $id) {
            $status = self::FAILURE;
            $output->writeln("There is no site $id here, of which a seal was kept elsewhere.");
        }

        if ($input->getOption('note') === true) {
            $words = $status === self::SUCCESS ? 'all links hold' : 'a chain breaks: see verjuicer:verify';
            $this->states->note('verify', $status === self::SUCCESS, $words);
        }

        return $status;
    }
}
