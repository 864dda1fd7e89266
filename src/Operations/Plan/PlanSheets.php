<?php

declare(strict_types=1);

namespace Verjuicer\App\Operations\Plan;

use Psr\Cache\CacheItemPoolInterface;
use Symfony\Component\DependencyInjection\Attribute\Autowire;
use Verjuicer\App\Catalogue\Pit\Pit;
use Verjuicer\App\Catalogue\Pit\Pits;
use Verjuicer\App\Platform\Now;
use Verjuicer\App\Site\Settings\SiteRules;
use Verjuicer\App\Site\Site\Site;
use Verjuicer\Core\Forecast\CoolingLimits;
use Verjuicer\Core\Measure\Temperature;
use Verjuicer\Core\Plan\ChillPlan;
use Verjuicer\Core\Plan\Dish;
use Verjuicer\Core\Plan\DishRest;
use Verjuicer\Core\Plan\HeatPlan;
use Verjuicer\Core\Plan\LearnedPace;
use Verjuicer\Core\Plan\PhysicsTimeEstimates;
use Verjuicer\Core\Plan\PitCapacity;
use Verjuicer\Core\Plan\Planner;
use Verjuicer\Core\Plan\PrepLeadTimes;
use Verjuicer\Core\Plan\Progress;
use Verjuicer\Core\Plan\PurchaseNeed;
use Verjuicer\Core\Plan\TimeEstimates;
use Verjuicer\Core\Plan\YieldShares;
use Verjuicer\Core\Ruleset\ReheatingRules;

/** Works plans out: from what was typed, what is on hand, the pits, and how real batches of it go. */
final readonly class PlanSheets
{
    public function __construct(
        private Plans $plans,
        private Pits $pits,
        private Stock $stock,
        private LearnedCooks $ownCooks,
        private DishProgress $progress,
        private UnplannedCooks $onTheHeat,
        private SiteRules $rules,
        private Now $now,
        #[Autowire(service: 'cache.forecasts')] private CacheItemPoolInterface $cache,
    ) {
    }

    public function of(Plan $plan): PlanSheet
    {
        $site = $plan->site;
        $times = $this->times($site);
        $rooms = array_map(
            static fn (Pit $pit): PitCapacity => new PitCapacity(
                $pit->name,
                $pit->capacityKg === null ? null : 1000 * $pit->capacityKg,
            ),
            $this->pits->of($site),
        );
        $own = $beside = $names = [];
        foreach ($this->bases([$plan, ...$this->plans->around($plan)], $times) as $id => $basis) {
            $names[$id] = $basis->dish->product->name;
            if ($basis->dish->plan === $plan) {
                $own[$id] = $basis;
            } else {
                $beside[] = $basis->planned;
                $names[$id] .= ' ('.$basis->dish->plan->name.')';
            }
        }
        foreach ($this->onTheHeat->of($site) as [$dish, $words]) {
            $beside[] = $dish;
            $names[$dish->id] = $words;
        }
        $planner = $this->planner($plan, $times, $rooms, $beside);
        $schedule = $planner->schedule(
            array_values(array_map(static fn (DishBasis $one): Dish => $one->planned, $own)),
        );
        $sheets = [];
        foreach ($own as $id => $basis) {
            $one = $schedule->of($id) ?? throw new \LogicException('Every dish is planned.');
            $service = $plan->service($basis->dish->service);
            $sheets[] = new DishSheet($basis, $service, $one, $schedule->conflictsOf($id));
        }

        return new PlanSheet($plan, $sheets, $schedule, $rooms, $names, $planner);
    }

    /**
     * @param list<Plan> $plans what is served first takes first of what there is
     *
     * @return array<string, DishBasis> by the id of the dish
     */
    private function bases(array $plans, TimeEstimates $times): array
    {
        $site = $plans[0]->site;
        $dishes = array_merge(...array_map($this->plans->dishes(...), $plans));
        usort(
            $dishes,
            static fn (PlannedDish $one, PlannedDish $other): int => [$one->serve()->epoch, $one->id->toRfc4122()]
                <=> [$other->serve()->epoch, $other->id->toRfc4122()],
        );
        $stock = $this->stock->of($site);
        $progress = $this->progress->of($dishes);
        /** @var array<string, array{LearnedPace, YieldShares}> $own by product */
        $own = [];
        $bases = $taken = [];
        foreach ($dishes as $dish) {
            $id = $dish->id->toRfc4122();
            $product = $dish->product->id->toRfc4122();
            $facts = $dish->facts();
            $own[$product] ??= [
                $this->ownCooks->pace($site, $dish->product, self::celsius($facts->target), $times),
                $this->ownCooks->shares($site, $dish->product),
            ];
            [$pace, $shares] = $own[$product];
            $need = PurchaseNeed::of($facts->portions, $facts->plateGrams, $shares, $facts->pieceGrams);
            $pieces = $dish->batch->pieces ?? $facts->pieces ?? $need->pieces;
            $wanted = $dish->batch === null ? $pieces * $facts->pieceGrams : 0;
            $before = $taken[$product] ?? 0;
            $taken[$product] = $before + $wanted;
            $onHand = $stock[$product] ?? null;
            $isFrozen = $facts->isThawed || ($wanted > 0 && $onHand?->isFrozenFor($before + $wanted) === true);
            $bases[$id] = new DishBasis(
                $dish,
                $facts,
                $need,
                $pieces,
                $shares,
                $pace,
                $onHand,
                min($wanted, $onHand?->shortOf($before + $wanted) ?? $wanted),
                self::dish($dish, $facts, $pieces, $isFrozen, $pace, $progress[$id] ?? null),
            );
        }

        return $bases;
    }

    public function times(Site $site): TimeEstimates
    {
        $gates = $this->gates($site);
        $version = serialize([get_object_vars($gates), $site->elevationM]);

        return new CachedTimeEstimates(new PhysicsTimeEstimates($gates, $site->elevationM), $this->cache, $version);
    }

    public function gates(Site $site): CoolingLimits
    {
        return CoolingLimits::of($this->rules->of($site), $site->unit);
    }

    /**
     * @param list<PitCapacity> $rooms
     * @param list<Dish> $beside of other plans
     */
    private function planner(Plan $plan, TimeEstimates $times, array $rooms, array $beside): Planner
    {
        return new Planner(
            $times,
            $this->gates($plan->site),
            $this->rules->of($plan->site)->get(ReheatingRules::class)->within->span->seconds,
            $rooms,
            $plan->shifts(),
            $this->now->instant(),
            $beside,
        );
    }

    private static function dish(
        PlannedDish $dish,
        DishFacts $facts,
        int $pieces,
        bool $isFrozen,
        LearnedPace $pace,
        ?Progress $progress,
    ): Dish {
        $minutes = static fn (int $minutes): int => 60 * $minutes;

        return new Dish(
            $dish->id->toRfc4122(),
            LearnedCooks::meat($dish->product, $facts->pieceGrams, $pieces),
            new HeatPlan(
                self::celsius($facts->set),
                self::celsius($facts->target),
                $facts->wrap,
                $facts->wrapAt === null ? null : self::celsius($facts->wrapAt),
                $facts->wrapAfter === null ? null : $minutes($facts->wrapAfter),
                $facts->total === null ? null : $minutes($facts->total),
                $minutes($facts->sauced),
            ),
            new DishRest($facts->rest, $minutes($facts->resting), $facts->hold, $minutes($facts->slicing)),
            $facts->chillMethod === null
                ? null
                : new ChillPlan(
                    $facts->chillMethod,
                    $facts->chillDepthMm / 1000,
                    $facts->isChillCovered,
                    $minutes($facts->reheating),
                ),
            new PrepLeadTimes(
                $isFrozen ? PrepLeadTimes::thawing($facts->pieceGrams) : 0,
                $minutes($facts->injected),
                $minutes($facts->seasoned),
                $minutes($facts->tempered),
                $minutes($facts->fire),
            ),
            $progress->pit ?? $facts->pit,
            $facts->load,
            $dish->serve(),
            $progress,
            $pace,
        );
    }

    private static function celsius(Temperature $temperature): float
    {
        return $temperature->ninetieths / 90;
    }
}
