<?php

declare(strict_types=1);

namespace Verjuicer\App\Site\People;

use Verjuicer\Core\Measure\Instant;

/** A recorded change of an account. */
final readonly class PersonChange
{
    /** @param string $what added, changed, disabled, enabled, invited, signed_out, password */
    public function __construct(
        public Instant $at,
        public string $by,
        public string $what,
        public string $name,
        public ?Role $roleBefore,
        public ?Role $roleAfter,
    ) {
    }

    /**
     * @param array{at: int, initials: string, what: string, name: string, before: string, after: string} $row
     */
    public static function ofRow(array $row): self
    {
        return new self(
            Instant::ofEpoch($row['at']),
            $row['initials'],
            $row['what'],
            $row['name'],
            self::role($row['before']),
            self::role($row['after']),
        );
    }

    private static function role(string $json): ?Role
    {
        $said = json_decode($json, true, flags: \JSON_THROW_ON_ERROR);
        $role = \is_array($said) ? $said['role'] ?? null : null;

        return \is_string($role) ? Role::tryFrom($role) : null;
    }
}
