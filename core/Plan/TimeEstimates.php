<?php

declare(strict_types=1);

namespace Verjuicer\Core\Plan;

use Verjuicer\Core\Food\Holding;
use Verjuicer\Core\Forecast\CoolingOdds;
use Verjuicer\Core\Record\RecordedProduct;

/** Durations a plan needs before any reading. */
interface TimeEstimates
{
    /** How long one piece takes on the heat. */
    public function cook(RecordedProduct $product, HeatPlan $heat): CookTime;

    /**
     * How long one piece that comes off stays at or above the hot limit.
     *
     * @param float $celsius it comes off with
     */
    public function hot(RecordedProduct $product, Holding $place, float $celsius): Duration;

    /** How likely a layer passes the gates of cooling. */
    public function cooling(ChillPlan $chill): CoolingOdds;
}
