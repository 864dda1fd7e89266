<?php

declare(strict_types=1);

namespace Verjuicer\Core\Ruleset;

use Verjuicer\Core\Measure\Weight;

/** The two weights of roast the code tells apart, and either. */
enum WeightClass: string
{
    case Under = 'under';
    case From = 'from';
    case Any = 'any';

    public function holds(?Weight $raw, Weight $split): bool
    {
        return match ($this) {
            self::Any => true,
            self::Under => $raw !== null && $raw->isUnder($split),
            self::From => $raw !== null && !$raw->isUnder($split),
        };
    }
}
