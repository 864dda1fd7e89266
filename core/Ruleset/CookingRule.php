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

    /** @throws RuleSetProblem if there is no row */
    public static function read(CookingCategory $category, RuleFields $fields): self
    {
        $rows = [];
        foreach ($fields->objects('rows') as $row) {
            $read = new CookingRow($row->threshold(), $row->span('seconds'));
            if ($rows !== [] && $rows[\count($rows) - 1]->temperature->compareTo($read->temperature) >= 0) {
                $row->wrong('f', 'must be hotter than the row before it');
            }
            $rows[] = $read;
        }
        if ($rows === []) {
            $fields->wrong('rows', 'must hold at least one row');
            $fields->refuse();
        }
        \assert($rows !== [], 'else it was refused');

        return new self($category, $fields->citation(), $rows);
    }
}
