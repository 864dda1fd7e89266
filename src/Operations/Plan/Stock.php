<?php

declare(strict_types=1);

namespace Verjuicer\App\Operations\Plan;

use Doctrine\DBAL\Connection;
use Verjuicer\App\Ledger\Lot\Lots;
use Verjuicer\App\Site\Site\Site;

/** What is in the walk-in and the freezer, product by product, and what was paid for it last. */
final readonly class Stock
{
    public function __construct(private Lots $lots, private Connection $connection)
    {
    }

    /** @return array<string, OnHand> by the id of the product, of those that were ever bought */
    public function of(Site $site): array
    {
        $lots = [];
        foreach ($this->lots->available($site) as $lot) {
            $lots[$lot->lot->product->id->toRfc4122()][] = $lot;
        }
        /** @var list<array{product: string, cents: int|null, supplier: string}> $bought */
        $bought = $this->connection->fetchAllAssociative(
            <<<'SQL'
            SELECT DISTINCT ON (l.product_id) l.product_id AS product, s.name AS supplier,
                   CASE WHEN l.price_cents IS NOT NULL THEN round(l.price_cents * 1000.0 / l.grams)::int END AS cents
            FROM lot l JOIN supplier s ON s.id = l.supplier_id
            WHERE l.site_id = ? AND l.is_accepted ORDER BY l.product_id, l.at DESC
            SQL,
            [$site->id->toRfc4122()],
        );
        $found = [];
        foreach ($bought as $one) {
            $found[$one['product']] = OnHand::of($lots[$one['product']] ?? [], $one);
        }

        return $found;
    }
}
