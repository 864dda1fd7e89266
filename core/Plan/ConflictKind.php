<?php

declare(strict_types=1);

namespace Verjuicer\Core\Plan;

/** Conflicts of a plan, worst first. */
enum ConflictKind: string
{
    case Gates = 'gates';
    case ReheatTooLong = 'reheat_too_long';
    case TwoSets = 'two_sets';
    case NoRoom = 'no_room';
    case NeverDone = 'never_done';
    case Late = 'late';
    case FallsBelow = 'falls_below';
    case Past = 'past';
    case Undone = 'undone';
    case PulledCool = 'pulled_cool';
    case NoPit = 'no_pit';
    case NobodyThere = 'nobody_there';

    /** Whether food would likely miss a limit of the code, rather than be late or in the way. */
    public function isUnsafe(): bool
    {
        return match ($this) {
            self::Gates, self::ReheatTooLong, self::FallsBelow => true,
            default => false,
        };
    }

    /** How much it weighs against others. */
    public function weight(): int
    {
        return match ($this) {
            self::Gates, self::ReheatTooLong, self::TwoSets, self::NoRoom, self::NeverDone => 6,
            self::Late, self::FallsBelow, self::Past => 4,
            self::Undone, self::PulledCool, self::NoPit => 2,
            self::NobodyThere => 1,
        };
    }
}
