<?php

declare(strict_types=1);

namespace Verjuicer\Core\Forecast;

use Verjuicer\Core\Forecast\Belief\Belief;
use Verjuicer\Core\Forecast\Belief\ParameterSample;

/** The entry or reading that would narrow a cooling forecast most. */
enum NarrowingInput: string
{
    /** How warm the air is there. */
    case Air = 'air';
    /** How deep or thick it is. */
    case Depth = 'depth';
    /** How it lies: covered or open, air moving or not. */
    case Method = 'method';
    /** None of these: its own temperature. */
    case Reading = 'reading';

    private const LEAST = 0.2; // of the differences

    /** @param float $celsius that it falls to */
    public static function of(Belief $belief, float $celsius, bool $isCovered): self
    {
        $unknowns = [ParameterSample::REST_TRANSFER];
        if (!$belief->isAirRead()) {
            $unknowns[] = ParameterSample::REST_AIR;
        }
        if ($belief->depth() === null) {
            $unknowns[] = ParameterSample::HALF;
        }
        $most = $belief->decides($celsius, false, $unknowns);
        if ($most === null || $most[1] < self::LEAST) {
            return self::Reading;
        }

        return match ($most[0]) {
            ParameterSample::REST_AIR => self::Air,
            ParameterSample::HALF => self::Depth,
            // Who said that it is covered has said how it lies.
            default => $isCovered ? self::Reading : self::Method,
        };
    }
}
