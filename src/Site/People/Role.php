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
    /** As a manager, in every site of theirs; opens further sites, and says who works where. */
    case Owner = 'owner';
    case Inspector = 'inspector';

    /** After so long without doing anything one logs in again; a shift at the pit has long pauses. */
    public function idleMinutes(): int
    {
        return match ($this) {
            self::Crew, self::Pitmaster => 12 * 60,
            self::Manager, self::Owner => 4 * 60,
            self::Reader, self::Inspector => 60,
        };
    }

    public function longestHours(): int
    {
        return match ($this) {
            self::Crew, self::Pitmaster => 24,
            self::Manager, self::Owner => 16,
            self::Reader, self::Inspector => 8,
        };
    }

    /** @return list<self> the roles that a person of this one may grant */
    public function gives(): array
    {
        return array_values(
            array_filter(self::cases(), fn (self $role): bool => $role !== self::Owner || $this === self::Owner),
        );
    }

    public function manages(): bool
    {
        return $this === self::Manager || $this === self::Owner;
    }

    public function securityRole(): string
    {
        return 'ROLE_'.strtoupper($this->value);
    }
}
