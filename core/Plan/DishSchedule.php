<?php

declare(strict_types=1);

namespace Verjuicer\Core\Plan;

use Verjuicer\Core\Forecast\CoolingOdds;
use Verjuicer\Core\Measure\Instant;

/** When everything of a dish is, worked back from when it is served. A forecast, with its range. */
final readonly class DishSchedule
{
    /**
     * @param list<Step> $steps in order
     * @param Duration $done from loading until the last piece is done
     * @param int $after seconds from the heat to the pass: rest, cooling and reheating, slicing
     * @param float $late 0 to 1: the chance that it is not ready when it is served
     * @param float $fallsBelow 0 to 1: the chance that it falls below the hot limit before it is sliced
     * @param Instant|null $hotUntil one time in ten it is below the hot limit before; null where it is kept hot
     * @param Instant $latestLoad as late as it is ready nine times in ten
     * @param Instant $occupiesTo the pit, nine times in ten
     * @param bool $isPulledCool whether it comes off below the hot limit
     * @param float $undone 0 to 1: the chance that a fixed schedule takes it off before it is done
     */
    public function __construct(
        public Dish $dish,
        public Instant $load,
        public array $steps,
        public Duration $done,
        public Duration $ready,
        public int $after,
        public float $late,
        public float $fallsBelow,
        public ?Instant $hotUntil,
        public Instant $latestLoad,
        public Instant $occupiesTo,
        public ?CoolingOdds $cooling,
        public bool $isPulledCool,
        public float $undone,
    ) {
    }

    /** With one step more. */
    public function with(Step $step): self
    {
        $steps = [...$this->steps, $step];
        usort($steps, static fn (Step $one, Step $other): int => $one->at->epoch <=> $other->at->epoch);

        return new self(
            $this->dish,
            $this->load,
            $steps,
            $this->done,
            $this->ready,
            $this->after,
            $this->late,
            $this->fallsBelow,
            $this->hotUntil,
            $this->latestLoad,
            $this->occupiesTo,
            $this->cooling,
            $this->isPulledCool,
            $this->undone,
        );
    }

    public function step(StepKind $kind): ?Step
    {
        foreach ($this->steps as $step) {
            if ($step->kind === $kind) {
                return $step;
            }
        }

        return null;
    }

    /** @return Instant|null by when it is ready with this chance; null for never */
    public function readyBy(float $chance): ?Instant
    {
        $seconds = $this->ready->by($chance);

        return $seconds === null ? null : Instant::ofEpoch($this->load->epoch + $seconds);
    }
}
