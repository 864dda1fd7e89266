<?php

declare(strict_types=1);

namespace Verjuicer\Core\Thermal;

/** The surroundings of meat, and how heat and water pass its surface. */
final readonly class Surface
{
    /**
     * @param float $air °C
     * @param float $transfer W/(m² K), convection and radiation together
     * @param float $convection W/(m² K), the part by moving air, which carries vapour as well (Lewis)
     * @param float $vapour Pa, of water in the air
     * @param float $wetness 0 to 1: how freely the surface gives off water where it has not dried yet
     * @param float $drying kg/m² given off after which it does so half as freely; INF where it never dries
     * @param float $sharpness how suddenly it dries then: the power of the evaporated share
     * @param float $supply W/m², as heat of vapour: how fast water reaches the surface before it dries. The air's
     *     demand and this supply act in series, like conductances (drying at a falling rate); INF in water
     */
    public function __construct(
        public float $air,
        public float $transfer,
        public float $convection = 0.0,
        public float $vapour = 1000.0,
        public float $wetness = 0.0,
        public float $drying = \INF,
        public float $sharpness = 1.0,
        public float $supply = \INF,
    ) {
    }

    public static function dry(float $air, float $transfer): self
    {
        return new self($air, $transfer);
    }

    /** The same with other air, or one that gives off water more or less freely. */
    public function with(float $air, float $freely = 1.0): self
    {
        return new self(
            $air,
            $this->transfer,
            $this->convection,
            $this->vapour,
            $freely * $this->wetness,
            $this->drying,
            $this->sharpness,
            $freely * $this->supply,
        );
    }
}
