<?php

declare(strict_types=1);

namespace Verjuicer\App\Work\Entry;

use Doctrine\DBAL\Connection;
use Twig\Attribute\AsTwigFunction;
use Verjuicer\App\Site\People\CurrentAccount;

/** What the keypad has keys for: the tags of open batches, the spots of the site's products, its thermometers, and how long ago. */
final readonly class Keypad
{
    private const MINUTES_AGO = ['-5', '-10'];

    public function __construct(private Connection $connection, private CurrentAccount $account)
    {
    }

    /** @return array{tags: array<int, string>, words: list<string>} tags with the product on them */
    #[AsTwigFunction('keypad')]
    public function keys(): array
    {
        $site = $this->account->get()->site;
        $id = $site->id->toRfc4122();
        /** @var array<int, string> $tags */
        $tags = $this->connection->fetchAllKeyValue("SELECT tag, coalesce(facts->>'product', '') FROM board_lane WHERE site_id = ? AND ended_at IS NULL ORDER BY tag", [$id]);
        /** @var list<string> $words */
        $words = $this->connection->fetchFirstColumn(<<<'SQL'
            (SELECT spot->>'name' FROM product, jsonb_array_elements(spots) AS spot WHERE site_id = :site AND NOT is_retired AND spot->>'name' <> 'core' GROUP BY 1 ORDER BY count(*) DESC, 1)
            UNION ALL
            (SELECT label FROM thermometer WHERE site_id = :site AND retired_at IS NULL ORDER BY label)
            SQL, ['site' => $id]);

        return ['tags' => $tags, 'words' => [...$words, ...self::MINUTES_AGO]];
    }
}
