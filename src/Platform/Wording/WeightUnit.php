<?php

declare(strict_types=1);

namespace Verjuicer\App\Platform\Wording;

enum WeightUnit: string
{
    /** Grams in each unit that is typed or written. */
    public const GRAMS_IN = ['kg' => 1000.0, 'g' => 1.0, 'lb' => 453.59237, 'oz' => 28.349523125];

    case Kilograms = 'kg';
    /** With ounces. */
    case Pounds = 'lb';

    public function grams(): float
    {
        return self::GRAMS_IN[$this->value];
    }
}
