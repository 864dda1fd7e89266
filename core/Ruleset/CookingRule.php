<?php

declare(strict_types=1);

namespace Verjuicer\Core\Ruleset;

/** The rows of one category: alternatives, from the coolest to the hottest. */
final readonly class CookingRule
{
    /** @param non-empty-list<CookingRow> $rows */
    public function __construct(public CookingCategory $category, public string $citation, public array $rows)
    {
    }
}
