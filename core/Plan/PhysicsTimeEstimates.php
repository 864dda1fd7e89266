<?php

declare(strict_types=1);

namespace Verjuicer\Core\Plan;

use Verjuicer\Core\Food\Holding;
use Verjuicer\Core\Forecast\Belief\Belief;
use Verjuicer\Core\Forecast\Belief\Beliefs;
use Verjuicer\Core\Forecast\Belief\CookRoute;
use Verjuicer\Core\Forecast\Belief\PlannedSteps;
use Verjuicer\Core\Forecast\Belief\Prior;
use Verjuicer\Core\Forecast\CoolingLimits;
use Verjuicer\Core\Forecast\CoolingOdds;
use Verjuicer\Core\Record\RecordedProduct;
use Verjuicer\Core\Thermal\Atmosphere;

/** The belief of `core/Forecast` before any reading: the usual for such meat in such a pit. */
final readonly class PhysicsTimeEstimates implements TimeEstimates
{
    private const STAYS_HOT = 24 * 3600; // seconds after which it is enough to know that it was hot
    /** °C of a cabinet or a steam table that works. */
    private const KEPT_HOT = 66.0;

    /** @param int|null $elevation m */
    public function __construct(private CoolingLimits $gates, private ?int $elevation)
    {
    }

    public function cook(RecordedProduct $product, HeatPlan $heat): CookTime
    {
        $planned = $heat->wrap === null ? null : PlannedSteps::wrap($heat->wrap, $heat->wrapAfter, $heat->wrapAt);
        $belief = Belief::of(
            CookRoute::onTheHeat($heat->set, $planned === null ? [] : [$planned]),
            Prior::of($product, null),
            [],
            null,
            Atmosphere::pascals($this->elevation ?? 0),
            0,
        );
        $done = Duration::of($belief->crossing($heat->target, true, Belief::WITHIN), 0);
        $wrapped = match (true) {
            $heat->wrap === null => null,
            $heat->wrapAt !== null => Duration::of($belief->crossing($heat->wrapAt, true, Belief::WITHIN), 0),
            default => Duration::exactly($heat->wrapAfter ?? 0),
        };

        return new CookTime($done, $wrapped);
    }

    public function hot(RecordedProduct $product, Holding $place, float $celsius): Duration
    {
        if ($celsius <= $this->gates->hot) {
            return Duration::exactly(0);
        }
        $around = \in_array($place, DishRest::KEPT_HOT, true) ? self::KEPT_HOT : null;
        $belief = Beliefs::ahead($product, $place, $celsius, $around, null, false, 0, $this->elevation);

        return Duration::of($belief->crossing($this->gates->hot, false, self::STAYS_HOT), 0);
    }

    public function cooling(ChillPlan $chill): CoolingOdds
    {
        return CoolingOdds::of(
            $chill->method,
            $chill->depth,
            $chill->isCovered,
            null,
            $this->gates,
            $this->elevation,
        );
    }
}
