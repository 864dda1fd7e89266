<?php

declare(strict_types=1);

namespace Verjuicer\App\Door\Console;

use Doctrine\ORM\EntityManagerInterface;
use Symfony\Component\Console\Attribute\AsCommand;
use Symfony\Component\Console\Command\Command;
use Symfony\Component\Console\Input\InputInterface;
use Symfony\Component\Console\Input\InputOption;
use Symfony\Component\Console\Output\OutputInterface;
use Verjuicer\App\Ledger\Chain\Seal;
use Verjuicer\App\Ledger\Chain\SealLog;
use Verjuicer\App\Ledger\Chain\SiteChain;
use Verjuicer\App\Ledger\Series\SeriesBlocks;
use Verjuicer\App\Platform\Machine\MachineStates;
use Verjuicer\App\Projection\Lane\ForgedLanes;
use Verjuicer\App\Site\Site\Site;

#[AsCommand(
    'verjuicer:verify',
    'Walk the chain of every site and name the first place where it breaks; exit 1 if one does',
)]
final class VerifyCommand extends Command
{
    private const WORDS = [
        'missing_link' => 'a link is missing',
        'missing_row' => 'the row was removed',
        'altered' => 'the row, or its link, was altered',
        'not_chained' => 'the row was put in without its link',
        'seal' => 'the signed digest of a day is not that of the chain: the chain was made anew',
        'link_time' => 'the time of the link is not that of its row',
        'changed' => 'it was changed past the application',
        'removed' => 'it was removed past the application',
    ];

    public function __construct(
        private readonly EntityManagerInterface $entities,
        private readonly SiteChain $chain,
        private readonly SeriesBlocks $blocks,
        private readonly SealLog $seals,
        private readonly ForgedLanes $lanes,
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
        foreach ($this->entities->getRepository(Site::class)->findBy([], ['name' => 'ASC']) as $site) {
            $break = $this->chain->firstBreak($site);
            $expected = array_filter(
                $expected,
                fn (Seal $seal): bool => $this->chain->at($site, $seal->position)?->digest !== $seal->digest,
            );
            $block = $this->blocks->firstBroken($site);
            if ($block !== null) {
                $status = self::FAILURE;
                $output->writeln(
                    \sprintf('%s: what sensors said is not what it was when block %s was closed.', $site->name, $block),
                );
            }
            $seal = $this->seals->firstBroken($site);
            if ($seal !== null) {
                $status = self::FAILURE;
                $output->writeln(\sprintf(
                    '%s: the chain is not the one that was sealed at link %d on %s: it was cut, emptied or made anew.',
                    $site->name,
                    $seal->position,
                    gmdate('Y-m-d H:i', $seal->at),
                ));
            }
            $forged = $break === null ? $this->lanes->first($site) : null;
            if ($forged !== null) {
                $status = self::FAILURE;
                $output->writeln("$site->name: the board says of $forged what its record does not show.");
            }
            if ($break === null) {
                $output->writeln(\sprintf('%s: %d links, all hold.', $site->name, $this->chain->length($site)));

                continue;
            }
            $status = self::FAILURE;
            $output->writeln(
                \sprintf(
                    '%s: breaks at link %d, %s %s: %s.',
                    $site->name,
                    $break->position,
                    $break->kind,
                    $break->rowId,
                    self::WORDS[$break->what].($break->detail === '' ? '' : ' ('.$break->detail.')'),
                ),
            );
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

        if ($input->getOption('note') === true) {
            $words = $status === self::SUCCESS ? 'all links hold' : 'a chain breaks: see verjuicer:verify';
            $this->states->note('verify', $status === self::SUCCESS, $words);
        }

        return $status;
    }
}
