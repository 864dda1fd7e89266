<?php

declare(strict_types=1);

namespace Verjuicer\Core\Plan;

/**
 * How a batch is to be cooked: by feel, until it is as warm as the kitchen likes it; or by a fixed schedule ("3 open, 2
 * wrapped, 1 sauced"), which says when and leaves open whether it is done.
 */
final readonly class HeatPlan
{
    public const HOTTER = 14.0; // °C, one turn of a pit: 25 °F
    public const HOTTEST = 163.0; // °C a ways out may turn it to
    public const WRAPS = ['paper', 'foil', 'boat', 'covered pan'];

    /**
     * @param float $set °C of the pit
     * @param float $target °C of the meat
     * @param string|null $wrap the wrapping material; null for none
     * @param float|null $wrapAt °C of the meat
     * @param int|null $wrapAfter seconds on the heat
     * @param int|null $total seconds on the heat of a fixed schedule
     * @param int $sauced seconds before it comes off
     */
    public function __construct(
        public float $set,
        public float $target,
        public ?string $wrap = null,
        public ?float $wrapAt = null,
        public ?int $wrapAfter = null,
        public ?int $total = null,
        public int $sauced = 0,
    ) {
    }

    public function hotter(): self
    {
        return $this->with($this->set + self::HOTTER, $this->wrap, $this->wrapAt, $this->wrapAfter);
    }

    public function at(float $set): self
    {
        return $this->with($set, $this->wrap, $this->wrapAt, $this->wrapAfter);
    }

    /** @param float $at °C of the meat */
    public function wrapped(string $with, float $at): self
    {
        return $this->with($this->set, $with, $at, null);
    }

    private function with(float $set, ?string $wrap, ?float $wrapAt, ?int $wrapAfter): self
    {
        return new self($set, $this->target, $wrap, $wrapAt, $wrapAfter, $this->total, $this->sauced);
    }
}
