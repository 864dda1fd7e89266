<?php

declare(strict_types=1);

namespace Verjuicer\App\EntryPoint\Simulate;

/** The air of a pit or a room: it approaches its set temperature at its rate of heating or cooling. */
final class Air
{
    /**
     * @param float $celsius now
     * @param float $set °C it is drawn to
     * @param float $minutes in which two thirds of the way are gone
     */
    public function __construct(public float $celsius, public float $set, public float $minutes)
    {
    }

    public function step(float $seconds, float $towards, float $minutes): void
    {
        $this->celsius += ($towards - $this->celsius) * (1.0 - exp(-$seconds / (60.0 * $minutes)));
    }
}
