<?php

declare(strict_types=1);

namespace Verjuicer\Core\Assess\Evidence;

use Verjuicer\Core\Food\Oven;
use Verjuicer\Core\Record\Detail;
use Verjuicer\Core\Record\EventType;
use Verjuicer\Core\Ruleset\CookingCategory;
use Verjuicer\Core\Ruleset\CookingRow;
use Verjuicer\Core\Ruleset\CookingRule;

/** A cook from first heat to leaving it for good, pauses and carry-over included, with the rows that are open to it. */
final readonly class CookWindow
{
    /** @param non-empty-list<CookingRow> $openRows from the coolest to the hottest */
    private function __construct(
        public Stretch $stretch,
        public CookingRule $rule,
        public LowRows $lowRows,
        public array $openRows,
    ) {
    }

    /** @return list<self> in order; none where the product has no cooking rule */
    public static function allOf(CaseFile $case): array
    {
        $product = $case->product;
        $windows = [];
        foreach ($case->timeline->runsOf([EventType::Cook, EventType::Rest]) as $run) {
            while ($run !== [] && $run[0]->type() !== EventType::Cook) {
                array_shift($run);
            }
            $stretch = $run === [] ? null : new Stretch($run);
            $category = $stretch === null ? null : CookingCategory::of($product->animal, $product->form, $product->integrity, $product->stuffed || $product->wild, $case->isPiercedBefore($stretch->endOrder));
            if ($stretch !== null && $category !== null) {
                $windows[] = self::of($case, $stretch, $category);
            }
        }

        return $windows;
    }

    private static function of(CaseFile $case, Stretch $stretch, CookingCategory $category): self
    {
        $rule = $case->rules->cooking($category);
        $low = $case->rules->lowRoastRows;
        $lowRows = $rule->category === CookingCategory::Roast ? self::lowRows($case, $stretch) : LowRows::NoRoast;
        $open = array_values(array_filter($rule->rows, static fn (CookingRow $row): bool => \in_array($lowRows, [LowRows::Open, LowRows::NoRoast], true) || !$low->includes($row)));
        \assert($open !== [], 'the roast table reaches above its low rows');

        return new self($stretch, $rule, $lowRows, $open);
    }

    /** Every cook names its oven and set point, and every set point of it, later ones included, meets that oven's condition. */
    private static function lowRows(CaseFile $case, Stretch $stretch): LowRows
    {
        $oven = null;
        for ($order = $stretch->order; $order < $stretch->endOrder; ++$order) {
            $detail = $case->timeline->events[$order]->detail;
            if ($detail instanceof Detail\Cook) {
                $oven = $detail->oven;
                $set = $detail->set;
            } elseif ($detail instanceof Detail\PitSet) {
                $set = $detail->set;
            } else {
                continue;
            }
            $state = match (true) {
                $oven === null => LowRows::OvenUnknown,
                $set === null => LowRows::SetUnknown,
                $case->rules->lowRoastRows->areOpenFor($oven, $set, $case->product->rawWeight) => LowRows::Open,
                $case->product->rawWeight === null && $oven !== Oven::HighHumidity => LowRows::WeightUnknown,
                default => LowRows::Closed,
            };
            if ($state !== LowRows::Open) {
                return $state;
            }
        }

        return LowRows::Open;
    }
}
