<?php

declare(strict_types=1);

namespace Verjuicer\App\Platform\Machine;

use Doctrine\DBAL\Connection;
use Verjuicer\App\Platform\Now;
use Verjuicer\Core\Measure\Instant;

/**
 * Backups, drills and walks along the chain as the timers left them. Where none was ever made, as in a demo, there is
 * none to be late: `bin/install` makes the first.
 */
final readonly class MachineStates
{
    /** Hours after which each is late: a day or a week, and some to spare. */
    private const HOURS = ['backup' => 30, 'drill' => 192, 'verify' => 30];

    public function __construct(private Connection $connection, private Now $now)
    {
    }

    /** @return array<string, MachineState> by subject */
    public function all(): array
    {
        /** @var list<array{what: string, at: int, is_good: bool, words: string}> $rows */
        $rows = $this->connection->fetchAllAssociative(
            'SELECT what, extract(epoch FROM at)::bigint AS at, is_good, words FROM machine_state ORDER BY what',
        );
        $now = $this->now->instant()->epoch;
        $states = [];
        foreach ($rows as $row) {
            $states[$row['what']] = new MachineState(
                $row['what'],
                Instant::ofEpoch($row['at']),
                $row['is_good'],
                $now - $row['at'] > 3600 * (self::HOURS[$row['what']] ?? 0),
                $row['words'],
            );
        }

        return $states;
    }

    /** @param 'backup'|'drill'|'verify' $what */
    public function note(string $what, bool $isGood, string $words): void
    {
        $this->connection->executeStatement(
            <<<'SQL'
            INSERT INTO machine_state (what, at, is_good, words) VALUES (?, ?, ?, ?)
            ON CONFLICT (what) DO UPDATE SET at = excluded.at, is_good = excluded.is_good, words = excluded.words
            SQL,
            [$what, $this->now->instant()->rfc3339(), $isGood ? 'true' : 'false', mb_substr($words, 0, 500)],
        );
    }
}
