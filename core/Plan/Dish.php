<?php

declare(strict_types=1);

namespace Verjuicer\Core\Plan;

use Verjuicer\Core\Measure\Instant;
use Verjuicer\Core\Record\RecordedProduct;

/** One batch of a plan: product, method, pit, and when it has to be on the pass. */
final readonly class Dish
{
    /**
     * @param string $id of the planned dish in its store
     * @param RecordedProduct $product with the weight of one piece and how many
     * @param string|null $pit by name
     * @param Instant|null $load when it goes on the heat; null for as late as does
     * @param LearnedPace $pace of such cooks in this kitchen
     */
    public function __construct(
        public string $id,
        public RecordedProduct $product,
        public HeatPlan $heat,
        public DishRest $rest,
        public ?ChillPlan $chill,
        public PrepLeadTimes $leads,
        public ?string $pit,
        public ?Instant $load,
        public Instant $serve,
        public ?Progress $progress,
        public LearnedPace $pace,
    ) {
    }

    /** g of all of it, raw. */
    public function grams(): int
    {
        return ($this->product->rawWeight?->grams() ?? 0) * $this->product->pieces;
    }

    public function loadedAt(?Instant $load): self
    {
        return $this->with(load: $load, isLoadGiven: true);
    }

    public function cooked(HeatPlan $heat): self
    {
        return $this->with(heat: $heat);
    }

    public function rested(DishRest $rest): self
    {
        return $this->with(rest: $rest);
    }

    public function on(string $pit): self
    {
        return $this->with(pit: $pit);
    }

    public function served(Instant $serve): self
    {
        if ($serve->epoch === $this->serve->epoch) {
            return $this; // the same is planned already
        }

        return $this->with(serve: $serve);
    }

    public function chilled(ChillPlan $chill): self
    {
        return $this->with(chill: $chill);
    }

    private function with(
        ?HeatPlan $heat = null,
        ?DishRest $rest = null,
        ?ChillPlan $chill = null,
        ?string $pit = null,
        ?Instant $load = null,
        bool $isLoadGiven = false,
        ?Instant $serve = null,
    ): self {
        return new self(
            $this->id,
            $this->product,
            $heat ?? $this->heat,
            $rest ?? $this->rest,
            $chill ?? $this->chill,
            $this->leads,
            $pit ?? $this->pit,
            $isLoadGiven ? $load : $this->load,
            $serve ?? $this->serve,
            $this->progress,
            $this->pace,
        );
    }
}
