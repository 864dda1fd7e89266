<?php

declare(strict_types=1);

namespace Verjuicer\App\Operations\Entry;

use Verjuicer\App\Platform\Wording\WeightUnit;
use Verjuicer\Core\Event\FieldType;
use Verjuicer\Core\Event\Kind;
use Verjuicer\Core\Event\LinePhrase;
use Verjuicer\Core\Measure\Weight;

/** Amounts in the log line: a number and its unit, "0.2 kg", "200g", "12 plates". */
final readonly class LineAmounts
{
    private const MOST_GRAMS = 1_000_000;

    public function __construct(private LineWords $words)
    {
    }

    /**
     * @param list<string> $words
     *
     * @return array{array<string, mixed>, list<string>} values by field, and the words that are no amounts
     *
     * @throws EntryProblem if an amount is nothing, or more than a tonne
     */
    public function taken(Kind $kind, LinePhrase $saying, array $words): array
    {
        $values = $left = [];
        for ($index = 0; $index < \count($words); ++$index) {
            if (
                $saying->amounts === []
                || preg_match('/^(\d{1,6}(?:[.,]\d{1,3})?)(\pL+)?$/u', $words[$index], $part) !== 1
            ) {
                $left[] = $words[$index];
                continue;
            }
            $isApart = !isset($part[2]);
            $unit = $part[2] ?? ($words[$index + 1] ?? '');
            $field = $this->field($kind, $saying, $unit) ?? throw EntryProblem::noUnit($words[$index]);
            $values[$field] =
                $this->value($kind, $field, (float) str_replace(',', '.', $part[1]), $unit)
                ?? throw EntryProblem::noAmount($words[$index]);
            $index += $isApart ? 1 : 0;
        }

        return [$values, $left];
    }

    private function field(Kind $kind, LinePhrase $saying, string $unit): ?string
    {
        foreach ($saying->amounts as $field) {
            $units = $kind->fields[$field]->type === FieldType::Weight ? array_keys(WeightUnit::GRAMS_IN) : [$field];
            foreach ($units as $one) {
                if ($this->words->isUnit($one, $unit)) {
                    return $field;
                }
            }
        }

        return null;
    }

    private function value(Kind $kind, string $field, float $number, string $unit): Weight|int|null
    {
        if ($kind->fields[$field]->type === FieldType::Whole) {
            return $number >= 1 && $number <= $kind->fields[$field]->says->most && floor($number) === $number
                ? (int) $number
                : null;
        }
        foreach (WeightUnit::GRAMS_IN as $one => $gramsInOne) {
            $grams = (int) round($number * $gramsInOne);
            if ($this->words->isUnit($one, $unit)) {
                return $grams >= 1 && $grams <= self::MOST_GRAMS ? Weight::ofGrams($grams) : null;
            }
        }

        return null;
    }
}
