<?php

declare(strict_types=1);

namespace Verjuicer\App\Operations\Plan;

use Doctrine\DBAL\Connection;
use Verjuicer\App\Ledger\Log\HeatTime;
use Verjuicer\App\Ledger\Log\HeatTimes;
use Verjuicer\App\Projection\Lane\Lane;
use Verjuicer\App\Projection\Lane\Lanes;
use Verjuicer\App\Site\Site\Site;
use Verjuicer\Core\Food\Animal;
use Verjuicer\Core\Food\Form;
use Verjuicer\Core\Food\Holding;
use Verjuicer\Core\Food\Integrity;
use Verjuicer\Core\Measure\Span;
use Verjuicer\Core\Measure\Weight;
use Verjuicer\Core\Plan\Dish;
use Verjuicer\Core\Plan\DishRest;
use Verjuicer\Core\Plan\Duration;
use Verjuicer\Core\Plan\HeatPlan;
use Verjuicer\Core\Plan\LearnedPace;
use Verjuicer\Core\Plan\PrepLeadTimes;
use Verjuicer\Core\Plan\Progress;
use Verjuicer\Core\Record\RecordedProduct;

/** What is in the pits now and in no plan: it is in the way of what is to be loaded. */
final readonly class UnplannedCooks
{
    private const USUAL_SET = 121.0; // °C, where the cook did not say it
    private const USUAL_HOURS = 4; // from its loading, where nothing can be forecast

    public function __construct(private Lanes $lanes, private HeatTimes $heatTimes, private Connection $connection)
    {
    }

    /** @return list<array{Dish, string}> each with the words it is called by */
    public function of(Site $site): array
    {
        /** @var list<string> $ids */
        $ids = $this->connection->fetchFirstColumn(
            'SELECT batch_id FROM plan_dish WHERE site_id = ? AND batch_id IS NOT NULL',
            [$site->id->toRfc4122()],
        );
        $planned = array_fill_keys($ids, true);
        $lanes = [];
        foreach ($this->lanes->open($site)->lanes as $lane) {
            if ($lane->pit !== null && $lane->stage() === 'cook' && !isset($planned[$lane->batchId])) {
                $lanes[$lane->batchId] = $lane;
            }
        }
        $found = [];
        foreach ($this->heatTimes->of(array_keys($lanes)) as $id => $time) {
            $found[] = [self::dish($lanes[$id], $time), $lanes[$id]->tag.' '.$lanes[$id]->product];
        }

        return $found;
    }

    private static function dish(Lane $lane, HeatTime $time): Dish
    {
        $done = $lane->outlook->latest ?? $time->loaded->plus(Span::ofHours(self::USUAL_HOURS));
        $pieces = \count($lane->held());

        return new Dish(
            $lane->batchId,
            new RecordedProduct(
                $lane->product,
                Animal::None,
                Form::Cut,
                Integrity::Intact,
                Weight::ofGrams(max(1, $time->grams ?? 1)),
                $pieces,
            ),
            new HeatPlan($time->set === null ? self::USUAL_SET : $time->set->ninetieths / 90, 95.0),
            new DishRest(Holding::Cabinet, 0, null, 0),
            null,
            new PrepLeadTimes(fire: 0),
            $lane->pit,
            null,
            $done,
            new Progress($time->loaded, null, Duration::exactly($done->epoch - $time->loaded->epoch)),
            LearnedPace::usual(),
        );
    }
}
