<?php

declare(strict_types=1);

namespace Verjuicer\Core\Forecast;

/** How big what cools is: a piece of a weight, or a layer of a depth. */
final readonly class Size
{
    private const DENSITY = 1050.0; // kg/m³
    private const HEAT = 3300.0; // J/(kg K)
    private const DIFFUSIVITY = 1.4e-7; // m²/s

    /**
     * @param float $thinnest metres from the surface to the middle, if it is as flat as it may be; $thickest if it is
     *     round
     */
    private function __construct(private float $thinnest, private float $thickest, private bool $isLayer)
    {
    }

    public static function ofPiece(int $grams): self
    {
        $volume = max(1, $grams) / 1000 / self::DENSITY;
        $ball = ((3 * $volume) / (4 * \M_PI)) ** (1 / 3);

        return new self(0.55 * $ball, $ball, false);
    }

    /** @param float $millimetres of a layer that loses heat on both sides, or on its upper one only */
    public static function ofLayer(float $millimetres): self
    {
        return new self($millimetres / 2000, $millimetres / 1000, true);
    }

    /**
     * How fast the middle follows its surroundings once it has begun to: the part of the distance it covers in an hour,
     * by the heat its surface gives off and the heat its inside lets through.
     *
     * @return array{float, float} slowest and fastest, in 1/h
     */
    public function rates(Surroundings $surroundings): array
    {
        [$least, $most] = $surroundings->transfer;

        return [
            $this->rate($this->thickest, $least, $this->isLayer ? 1 : 3),
            $this->rate($this->thinnest, $most, $this->isLayer ? 1 : 2),
        ];
    }

    private function rate(float $radius, float $transfer, int $dimensions): float
    {
        $outside = (self::DENSITY * self::HEAT * $radius) / ($dimensions * $transfer);
        $inside = $radius ** 2 / (self::DIFFUSIVITY * [1 => 2.47, 2 => 5.78, 3 => 9.87][$dimensions]);

        return 3600 / ($outside + $inside);
    }
}
