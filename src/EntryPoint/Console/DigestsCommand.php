<?php

declare(strict_types=1);

namespace Verjuicer\App\EntryPoint\Console;

use Doctrine\DBAL\Connection;
use Symfony\Component\Console\Attribute\AsCommand;
use Symfony\Component\Console\Command\Command;
use Symfony\Component\Console\Input\InputInterface;
use Symfony\Component\Console\Output\OutputInterface;

/** Digests for comparing two databases: everything in one up to a link must be in the other. */
#[AsCommand('verjuicer:digests', 'Print, as JSON, the last link of every site, the counts, and the newest moment')]
final class DigestsCommand extends Command
{
    public function __construct(private readonly Connection $connection)
    {
        parent::__construct();
    }

    protected function execute(InputInterface $input, OutputInterface $output): int
    {
        $json = $this->connection->fetchOne(
            <<<'SQL'
            SELECT json_build_object(
                'sites', (SELECT json_agg(
                        json_build_object('site', l.site_id, 'position', l.position, 'digest', l.hash)
                    )
                    FROM (SELECT DISTINCT ON (site_id) site_id, position, hash FROM chain_link
                          ORDER BY site_id, position DESC) l),
                'kinds', (SELECT json_object_agg(kind, count)
                    FROM (SELECT kind, count(*) FROM chain_link GROUP BY kind ORDER BY kind) k),
                'newest', (SELECT to_char(max(recorded_at) AT TIME ZONE 'UTC', 'YYYY-MM-DD"T"HH24:MI:SS"Z"')
                    FROM chain_link)
            )
            SQL,
        );
        $output->writeln(\is_string($json) ? $json : '{}', OutputInterface::OUTPUT_RAW);

        return self::SUCCESS;
    }
}
