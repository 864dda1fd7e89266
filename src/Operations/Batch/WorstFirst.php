<?php

declare(strict_types=1);

namespace Verjuicer\App\Operations\Batch;

use Verjuicer\Core\Assess\Finding\Finding;

/** Findings in the order they are read in: the worst verdict first, and in the order of the rules within it. */
final readonly class WorstFirst
{
    /**
     * @param array<Finding> $findings
     *
     * @return list<Finding>
     */
    public static function of(array $findings): array
    {
        usort($findings, self::compare(...));

        return $findings;
    }

    private static function compare(Finding $one, Finding $other): int
    {
        return match (true) {
            $one->verdict === null, $other->verdict === null => 0,
            $one->verdict->isWorseThan($other->verdict) => -1,
            $other->verdict->isWorseThan($one->verdict) => 1,
            default => 0,
        };
    }
}
