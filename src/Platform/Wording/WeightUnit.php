<?php

declare(strict_types=1);

namespace Verjuicer\App\Platform\Wording;

enum WeightUnit: string
{
    case Kilograms = 'kg';
    /** With ounces. */
    case Pounds = 'lb';

    public function grams(): float
    {
        return $this === self::Pounds ? 453.59237 : 1000.0;
    }
}
