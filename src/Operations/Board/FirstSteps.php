<?php

declare(strict_types=1);

namespace Verjuicer\App\Operations\Board;

use Doctrine\DBAL\Connection;
use Verjuicer\App\Site\Site\Site;

/** What a new kitchen does first: each with whether it was done. None once a batch was begun. */
final readonly class FirstSteps
{
    public function __construct(private Connection $connection)
    {
    }

    /** @return array<string, bool> by the route that leads there, in the order in which they are best done */
    public function of(Site $site): array
    {
        // Most of the time there is nothing to say: that alone is asked first.
        $begun = $this->connection->fetchOne('SELECT 1 FROM batch WHERE site_id = ? LIMIT 1', [$site->id->toRfc4122()]);
        if ($begun !== false) {
            return [];
        }
        $done = $this->connection->fetchAssociative(
            <<<'SQL'
            SELECT (SELECT count(*) > 1 FROM account WHERE site_id = s.id) AS people,
                   EXISTS (SELECT FROM pit WHERE site_id = s.id) AS pits,
                   EXISTS (SELECT FROM thermometer_check c JOIN thermometer t ON t.id = c.thermometer_id
                           WHERE t.site_id = s.id) AS thermometers,
                   EXISTS (SELECT FROM hold_unit WHERE site_id = s.id) AS hot_round,
                   EXISTS (SELECT FROM lot WHERE site_id = s.id) AS receiving
            FROM site s WHERE s.id = ?
            SQL,
            [$site->id->toRfc4122()],
        );

        return $done === false
            ? []
            : array_map(static fn (mixed $is): bool => $is === true, $done) + ['card' => false, 'batch_new' => false];
    }
}
