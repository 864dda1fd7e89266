<?php

declare(strict_types=1);

namespace Verjuicer\App\Ledger\Chain;

/** The digest of the chain at one place, to be kept elsewhere, so that even a remade chain is noticed. */
final readonly class Seal
{
    /** @param string $digest SHA-256, in hexadecimal */
    public function __construct(public int $position, public string $digest)
    {
    }

    /** @param array<string, mixed>|false $row `position` and `digest` */
    public static function ofRow(array|false $row): ?self
    {
        return $row !== false && \is_int($row['position']) && \is_string($row['digest'])
            ? new self($row['position'], $row['digest'])
            : null;
    }
}
