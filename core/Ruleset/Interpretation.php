<?php

declare(strict_types=1);

namespace Verjuicer\Core\Ruleset;

use Verjuicer\Core\Measure\Threshold;

/** Our reading of a code where it is silent; shown wherever the code in force is named. */
final readonly class Interpretation
{
    /** @param string $text in English, with "{limit}" for the temperature */
    public function __construct(public string $text, public Threshold $limit)
    {
    }
}
