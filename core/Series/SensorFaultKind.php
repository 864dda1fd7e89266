<?php

declare(strict_types=1);

namespace Verjuicer\Core\Series;

/** Faults of sensor data. */
enum SensorFaultKind: string
{
    /** It says itself that nothing is plugged in. */
    case Unplugged = 'unplugged';
    /** No food is as cold or as hot as that. */
    case OutOfRange = 'out_of_range';
    /** Meat does not change so fast: the probe is somewhere else. */
    case Jumped = 'jumped';
    /** The same to the last digit for longer than anything stays so. */
    case Stuck = 'stuck';
    /** It reads as the pit does, and the pit's channel as meat does. */
    case Reversed = 'reversed';
    /** Nothing came for longer than it sends. */
    case Silent = 'silent';
    /** Something older came after something newer. */
    case OutOfOrder = 'out_of_order';
    /** Its clock is far from ours; its times are corrected by the difference. */
    case WrongClock = 'wrong_clock';
    /** The record of the batch it is in does not take it: the piece is gone, or another batch has its tag. */
    case NotRecorded = 'not_recorded';
    case BatteryLow = 'battery_low';
    /** Numbers of its sequence never came. */
    case Missing = 'missing';

    /** Whether nothing it says then is taken for food. */
    public function isNoFood(): bool
    {
        return match ($this) {
            self::Unplugged, self::OutOfRange, self::Jumped, self::Stuck, self::Reversed => true,
            default => false,
        };
    }
}
