<?php

declare(strict_types=1);

namespace Verjuicer\Core\Ruleset;

use Verjuicer\Core\Measure\Threshold;

/** What a rule set reads into a code where it is silent; named wherever the code in force is. */
final readonly class Interpretation
{
    /** @param string $text in English, with "{limit}" for the temperature */
    public function __construct(public string $text, public Threshold $limit)
    {
    }
}
