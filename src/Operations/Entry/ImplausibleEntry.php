<?php

declare(strict_types=1);

namespace Verjuicer\App\Operations\Entry;

use Verjuicer\App\Platform\Problem\Problem;
use Verjuicer\Core\Measure\TemperatureUnit;
use Verjuicer\Core\Ruleset\SlipReason;

/** An entry that is hardly possible: whoever made it is asked once whether it is right. */
final class ImplausibleEntry extends Problem
{
    /** @var non-empty-list<SlipReason> */
    public array $doubts;

    /** What it would record, in words. */
    public string $sentence;

    /** Its place among the entries made together. */
    public int $index;

    /** @param non-empty-list<SlipReason> $doubts */
    public static function because(array $doubts, string $sentence, int $index, TemperatureUnit $unit): self
    {
        $problem = new self('entry.sure.'.$doubts[0]->value, ['{unit}' => $unit->value], 'temp');
        $problem->doubts = $doubts;
        $problem->sentence = $sentence;
        $problem->index = $index;

        return $problem;
    }
}
