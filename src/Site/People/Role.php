<?php

declare(strict_types=1);

namespace Verjuicer\App\Site\People;

enum Role: string
{
    /** Looks, and changes nothing: an owner's bookkeeper, a trainee. */
    case Reader = 'reader';
    case Crew = 'crew';
    case Pitmaster = 'pitmaster';
    case Manager = 'manager';
    case Inspector = 'inspector';

    /** After so long without doing anything one logs in again; a shift at the pit has long pauses. */
    public function idleMinutes(): int
    {
        return match ($this) {
            self::Crew, self::Pitmaster => 12 * 60,
            self::Manager => 4 * 60,
            self::Reader, self::Inspector => 60,
        };
    }

    public function longestHours(): int
    {
        return match ($this) {
            self::Crew, self::Pitmaster => 24,
            self::Manager => 16,
            self::Reader, self::Inspector => 8,
        };
    }

    public function securityRole(): string
    {
        return 'ROLE_'.strtoupper($this->value);
    }
}
