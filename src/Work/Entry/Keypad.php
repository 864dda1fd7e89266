<?php

declare(strict_types=1);

namespace Verjuicer\App\Work\Entry;

use Doctrine\DBAL\Connection;
use Twig\Attribute\AsTwigFunction;
use Verjuicer\App\Site\People\CurrentAccount;

/**
 * What the keypad has keys for: the tags of open batches, the spots of the site's products, its thermometers, and how
 * long ago.
 */
final readonly class Keypad
{
    private const AGO = ['-5', '-10'];

    public function __construct(private Connection $connection, private CurrentAccount $account)
    {
    }

    /** @return array{tags: array<int, string>, words: list<string>} tags with the product on them */
    #[AsTwigFunction('keypad')]
    public function keys(): array
    {
        $site = $this->account->get()->site->id->toRfc4122();
        /** @var array<int, string> $tags */
        $tags = $this->connection->fetchAllKeyValue(
            <<<'SQL'
            SELECT o.tag, b.product_name FROM open_tag o JOIN batch b ON b.id = o.batch_id WHERE o.site_id = ?
              ORDER BY o.tag
            SQL,
            [$site],
        );
        /** @var list<string> $words */
        $words = $this->connection->fetchFirstColumn(
            <<<'SQL'
            (SELECT spot->>'name' FROM product, jsonb_array_elements(spots) AS spot
             WHERE site_id = :site AND NOT is_retired AND spot->>'name' <> 'core'
             GROUP BY 1 ORDER BY count(*) DESC, 1)
            UNION ALL
            (SELECT label FROM thermometer WHERE site_id = :site AND retired_at IS NULL ORDER BY label)
            SQL,
            ['site' => $site],
        );

        return ['tags' => $tags, 'words' => [...$words, ...self::AGO]];
    }
}
