<?php

declare(strict_types=1);

namespace Verjuicer\App\Ledger\Lot;

use Verjuicer\App\Platform\Problem\Problem;

/** A lot has fewer pieces left than a batch would take. */
final class TooLittleLeft extends Problem
{
    public static function of(string $lot, int $left): self
    {
        return new self('new.problem.too_little_left', ['{lot}' => $lot, '{left}' => (string) $left], 'pieces');
    }
}
