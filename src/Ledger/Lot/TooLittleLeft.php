<?php

declare(strict_types=1);

namespace Verjuicer\App\Ledger\Lot;

/** A lot has fewer pieces left than a batch would take. */
final class TooLittleLeft extends \DomainException
{
    public static function of(string $lot, int $left): self
    {
        return new self(\sprintf('Lot %s has %d pieces left.', $lot, $left));
    }
}
