<?php

declare(strict_types=1);

namespace Verjuicer\App\Console;

use Doctrine\ORM\EntityManagerInterface;
use Symfony\Component\Console\Attribute\AsCommand;
use Symfony\Component\Console\Command\Command;
use Symfony\Component\Console\Input\InputInterface;
use Symfony\Component\Console\Output\OutputInterface;
use Verjuicer\App\Chain\SiteChain;
use Verjuicer\App\Site\Site;

#[AsCommand('verjuicer:verify', 'Walk the chain of every site and name the first place where it breaks; exit 1 if one does')]
final class VerifyCommand extends Command
{
    private const WORDS = [
        'missing_link' => 'a link is missing',
        'missing_row' => 'the row was removed',
        'altered' => 'the row, or its link, was altered',
        'not_chained' => 'the row was put in without its link',
        'seal' => 'the signed digest of a day is not that of the chain: the chain was made anew',
    ];

    public function __construct(private readonly EntityManagerInterface $entities, private readonly SiteChain $chain)
    {
        parent::__construct();
    }

    protected function execute(InputInterface $input, OutputInterface $output): int
    {
        $status = self::SUCCESS;
        foreach ($this->entities->getRepository(Site::class)->findBy([], ['name' => 'ASC']) as $site) {
            $break = $this->chain->firstBreak($site);
            if ($break === null) {
                $output->writeln(\sprintf('%s: %d links, all hold.', $site->name, $this->chain->length($site)));

                continue;
            }
            $status = self::FAILURE;
            $output->writeln(\sprintf('%s: breaks at link %d, %s %s: %s.', $site->name, $break->position, $break->kind, $break->rowId, self::WORDS[$break->what]));
        }

        return $status;
    }
}
