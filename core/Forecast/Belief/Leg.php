<?php

declare(strict_types=1);

namespace Verjuicer\Core\Forecast\Belief;

use Verjuicer\Core\Food\Holding;

/** A stretch of a batch's way in which the same things are around it. */
final readonly class Leg
{
    /**
     * @param int $from seconds since 1970
     * @param Holding|null $holding null on the heat
     * @param list<array{int, float}> $air moments and °C as read or set, in order; empty if not recorded
     * @param string|null $wrap the wrapping material
     * @param float|null $depth m of the layer it lies in, from here on
     */
    public function __construct(
        public int $from,
        public ?Holding $holding,
        public array $air,
        public ?string $wrap,
        public bool $isCovered,
        public ?float $depth,
    ) {
    }

    /** @param list<array{int, float}> $air */
    public function in(array $air): self
    {
        return new self($this->from, $this->holding, $air, $this->wrap, $this->isCovered, $this->depth);
    }

    public function beginning(int $from): self
    {
        return new self($from, $this->holding, $this->air, $this->wrap, $this->isCovered, $this->depth);
    }
}
