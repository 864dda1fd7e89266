<?php

declare(strict_types=1);

namespace Verjuicer\App\Operations\Entry;

use Doctrine\DBAL\Connection;
use Twig\Attribute\AsTwigFunction;
use Verjuicer\App\Platform\Page\RenderedPart;
use Verjuicer\App\Projection\Lane\Lanes;
use Verjuicer\App\Site\People\CurrentAccount;
use Verjuicer\App\Site\Settings\SiteRules;
use Verjuicer\App\Site\Site\Site;
use Verjuicer\Core\Measure\Threshold;

/**
 * What the keypad has keys for: the tags of open batches with their pieces, spots and likely steps, the thermometers,
 * and the verbs of the log line.
 */
final readonly class Keypad
{
    public function __construct(
        private Connection $connection,
        private LineVerbs $verbs,
        private Lanes $lanes,
        private RenderedPart $part,
        private SiteRules $rules,
        private CurrentAccount $account,
    ) {
    }

    /**
     * @param int|null $tag where the page is of one batch
     *
     * @return string HTML
     */
    #[AsTwigFunction('keypad', isSafe: ['html'])]
    public function shown(?int $tag = null): string
    {
        $site = $this->account->get()->site;
        $state = [$site->id->toRfc4122().' '.$tag, $this->lanes->version($site)];

        return $this->part->of(
            'operations/entry/_pad.html.twig',
            $state,
            fn (): array => ['keys' => $this->keys($tag), 'tag' => $tag],
        );
    }

    private function keys(?int $tag): KeypadKeys
    {
        /**
         * @var list<array{tag: int|null, product: string, stage: string|null, is_mass: string|null, numbers: string,
         *     spots: string|null}> $rows
         */
        $rows = $this->connection->fetchAllAssociative(
            <<<'SQL'
            (SELECT o.tag, b.product_name AS product, l.facts->'stages'->-1->>0 AS stage,
               l.facts->>'is_mass' AS is_mass,
               CASE jsonb_typeof(l.facts->'numbers') WHEN 'array' THEN l.facts->'numbers'
                 ELSE (SELECT jsonb_agg(n) FROM generate_series(1, b.pieces) n) END AS numbers,
               (SELECT jsonb_agg(spot->'name') FROM product p, jsonb_array_elements(p.spots) spot
                WHERE p.site_id = o.site_id AND p.name = b.product_name AND NOT p.is_retired) AS spots
             FROM open_tag o JOIN batch b ON b.id = o.batch_id LEFT JOIN board_lane l ON l.batch_id = b.id
             WHERE o.site_id = :site AND (:tag = 0 OR o.tag = :tag) ORDER BY o.tag)
            UNION ALL
            (SELECT NULL, label, NULL, NULL, '[]', NULL FROM thermometer
             WHERE site_id = :site AND retired_at IS NULL ORDER BY label)
            SQL,
            ['site' => $this->account->get()->site->id->toRfc4122(), 'tag' => $tag ?? 0],
        );
        $site = $this->account->get()->site;
        $limits = $this->rules->of($site)->limits();
        $tags = $thermometers = [];
        foreach ($rows as $row) {
            if ($row['tag'] === null) {
                $thermometers[] = $row['product'];
                continue;
            }
            $isMass = $row['is_mass'] === 'true';
            $pieces = $isMass ? [] : array_filter(self::list($row['numbers']), \is_int(...));
            $spots = $isMass ? [] : array_filter(self::list($row['spots'] ?? '[]'), \is_string(...));
            $tags[$row['tag']] = new KeypadTag(
                $row['tag'],
                $row['product'],
                \count($pieces) > 1 ? array_values($pieces) : [],
                \count($spots) > 1 ? array_values($spots) : [],
                $row['stage'] ?? '',
                $row['stage'] === 'hot_hold' ? self::degrees($limits->hot->threshold, $site) : null,
                $row['stage'] === 'cold_hold' ? self::degrees($limits->cold->threshold, $site) : null,
            );
        }

        $likely = ['cook' => $this->verbs->likely('cook')];
        foreach ($tags as $one) {
            $likely[$one->stage] ??= $this->verbs->likely($one->stage);
        }

        return new KeypadKeys($tags, $thermometers, $this->verbs->all(), $likely);
    }

    private static function degrees(Threshold $limit, Site $site): float
    {
        return $limit->printedIn($site->unit)->tenths / 10;
    }

    /** @return list<mixed> */
    private static function list(string $json): array
    {
        $list = json_decode($json, flags: \JSON_THROW_ON_ERROR);

        return \is_array($list) ? array_values($list) : [];
    }
}
