<?php

declare(strict_types=1);

namespace Verjuicer\App\Operations\Probe;

use Doctrine\DBAL\Connection;
use Symfony\Contracts\Translation\TranslatorInterface;
use Verjuicer\App\Catalogue\Holding\HoldUnits;
use Verjuicer\App\Catalogue\Pit\Pits;
use Verjuicer\App\Projection\Lane\Lanes;
use Verjuicer\App\Site\Site\Site;

/** What a channel can be put into. */
final readonly class PlacementOptions
{
    private const PLACES = 40;

    public function __construct(
        private Lanes $lanes,
        private Pits $pits,
        private HoldUnits $units,
        private Connection $connection,
        private TranslatorInterface $translator,
    ) {
    }

    /** @return array<string, string> words by choice */
    public function of(Site $site): array
    {
        $choices = ['none' => $this->translator->trans('probe.nowhere')];
        foreach ($this->lanes->open($site)->lanes as $lane) {
            $choices['batch:'.$lane->batchId] = "$lane->tag · $lane->product";
        }
        foreach ($this->pits->of($site) as $pit) {
            $choices['pit:'.$pit->id->toRfc4122()] = $this->translator->trans('probe.pit', ['{name}' => $pit->name]);
        }
        foreach ($this->places($site) as $place) {
            $choices['place:'.$place] = $this->translator->trans('probe.air_of', ['{name}' => $place]);
        }

        return $choices;
    }

    /** @return list<string> the units of the site, and where food was kept lately */
    private function places(Site $site): array
    {
        $places = [];
        foreach ($this->units->of($site) as $unit) {
            $places[] = $unit->name;
        }
        /** @var list<string> $named */
        $named = $this->connection->fetchFirstColumn(
            <<<'SQL'
            SELECT r.place FROM stage_report r JOIN batch b ON b.id = r.batch_id
            WHERE b.site_id = ? AND r.stage IN ('cold_hold', 'freeze', 'cool') AND r.place IS NOT NULL
            GROUP BY r.place ORDER BY count(*) DESC, r.place LIMIT ?
            SQL,
            [$site->id->toRfc4122(), self::PLACES],
        );

        return array_values(array_unique([...$places, ...$named]));
    }
}
