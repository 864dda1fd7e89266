<?php

declare(strict_types=1);

namespace Verjuicer\App\Operations\Plan;

use Doctrine\DBAL\Connection;
use Verjuicer\App\Catalogue\Product\Product;
use Verjuicer\App\Ledger\Log\HeatTimes;
use Verjuicer\App\Platform\Now;
use Verjuicer\App\Site\Site\Site;
use Verjuicer\Core\Measure\Instant;
use Verjuicer\Core\Measure\Weight;
use Verjuicer\Core\Plan\HeatPlan;
use Verjuicer\Core\Plan\LearnedPace;
use Verjuicer\Core\Plan\Range;
use Verjuicer\Core\Plan\TimeEstimates;
use Verjuicer\Core\Plan\YieldShares;
use Verjuicer\Core\Record\RecordedProduct as Meat;

/** What a kitchen's own finished batches of a product say: how long they took beside what is usual, what was left. */
final readonly class LearnedCooks
{
    private const LEAST = 3; // batches that were weighed
    private const USUAL_SET = 121.0; // °C, where the cook did not say it
    private const WRAPPED_AT = 74.0; // °C

    public function __construct(private HeatTimes $heatTimes, private Connection $connection, private Now $now)
    {
    }

    /** @param float $target °C the kitchen likes it at */
    public function pace(Site $site, Product $product, float $target, TimeEstimates $times): LearnedPace
    {
        $cooks = [];
        $since = $product->heardSince() ?? Instant::ofEpoch(0);
        foreach ($this->heatTimes->latest($site, $product->name, $since, $this->now->instant()) as $one) {
            if ($one->grams === null || $one->pulled === null) {
                continue;
            }
            $meat = self::meat($product, $one->grams, $one->pieces);
            $set = $one->set === null ? self::USUAL_SET : $one->set->ninetieths / 90;
            $heat = new HeatPlan($set, $target, $one->wrap, $one->wrap === null ? null : self::WRAPPED_AT);
            $expected = $times->cook($meat, $heat)->done->ofLast($one->pieces);
            $cooks[] = [$one->pulled->epoch - $one->loaded->epoch, $expected];
        }

        return LearnedPace::learnt($cooks);
    }

    public function shares(Site $site, Product $product): YieldShares
    {
        $usual = YieldShares::usual($product->name, $product->form, $product->doneness()?->from);
        $said = $product->yieldLeast === null || $product->yieldMost === null
            ? $usual
            : YieldShares::typed($product->yieldLeast, $product->yieldMost);
        /** @var list<array{trimmed: float|null, cooked: float|null}> $rows */
        $rows = $this->connection->fetchAllAssociative(
            <<<'SQL'
            SELECT w.trimmed::float8 / b.raw AS trimmed, w.cooked::float8 / coalesce(w.trimmed, b.raw) AS cooked
            FROM (
                SELECT id, raw_grams * pieces AS raw FROM batch
                WHERE site_id = :site AND lower(product_name) = lower(:product) AND parent_id IS NULL
                  AND raw_grams IS NOT NULL AND begun_at >= to_timestamp(:since)
                  AND id NOT IN (SELECT o.batch_id FROM open_tag o WHERE o.site_id = :site)
                ORDER BY begun_at DESC LIMIT 20
            ) b CROSS JOIN LATERAL (
                SELECT sum((e.members->>'after_kg')::numeric * 1000) FILTER (WHERE e.type = 'trim') AS trimmed,
                       min((e.members->>'total_kg')::numeric * 1000) FILTER (WHERE e.type = 'note'
                         AND e.members->>'step' IN ('divided', 'weighed')) AS cooked
                FROM event e WHERE e.batch_id = b.id AND e.type IN ('trim', 'note')
                  AND NOT EXISTS (SELECT 1 FROM event r WHERE r.batch_id = b.id AND r.replaces = e.id)
            ) w WHERE w.trimmed IS NOT NULL OR w.cooked IS NOT NULL
            SQL,
            [
                'site' => $site->id->toRfc4122(),
                'product' => $product->name,
                'since' => $product->heardSince()->epoch ?? 0,
            ],
        );
        $trimmed = self::plausible(array_column($rows, 'trimmed'));
        $cooked = self::plausible(array_column($rows, 'cooked'));
        $count = max(\count($trimmed), \count($cooked));

        return $count < self::LEAST
            ? $said
            : new YieldShares(
                \count($trimmed) < self::LEAST ? $usual->trimmed : Range::found($trimmed),
                \count($cooked) < self::LEAST ? $usual->cooked : Range::found($cooked),
                $count,
            );
    }

    /** As far as physics ask. */
    public static function meat(Product $product, int $gramsOfOne, int $pieces): Meat
    {
        return new Meat(
            $product->name,
            $product->animal,
            $product->form,
            $product->integrity,
            Weight::ofGrams($gramsOfOne),
            $pieces,
        );
    }

    /**
     * @param list<float|null> $shares
     *
     * @return list<float>
     */
    private static function plausible(array $shares): array
    {
        return array_values(array_filter($shares, static fn (?float $one): bool => $one > 0.1 && $one <= 1.0));
    }
}
