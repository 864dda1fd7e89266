<?php

declare(strict_types=1);

namespace Verjuicer\Core\Assess;

use Verjuicer\Core\Record\Detail;
use Verjuicer\Core\Record\EventType;
use Verjuicer\Core\Record\Form;
use Verjuicer\Core\Record\Integrity;
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
        public bool $hasLowRows,
        public array $openRows,
    ) {
    }

    /** @return list<self> in order; none where the product has no cooking rule */
    public static function allOf(CaseFile $case): array
    {
        if ($case->product->form === Form::CommercialReadyToEat) {
            return [];
        }
        $windows = [];
        foreach ($case->timeline->runsOf([EventType::Cook, EventType::Rest]) as $run) {
            while ($run !== [] && $run[0]->type() !== EventType::Cook) {
                array_shift($run);
            }
            if ($run !== []) {
                $windows[] = self::of($case, new Stretch($run));
            }
        }

        return $windows;
    }

    private static function of(CaseFile $case, Stretch $stretch): self
    {
        $rule = $case->rules->cooking(self::category($case, $stretch));
        $low = $case->rules->lowRoastRows;
        $hasLowRows = $rule->category === CookingCategory::Roast && self::ovenConditionsHold($case, $stretch);
        $open = array_values(array_filter($rule->rows, static fn (CookingRow $row): bool => $hasLowRows || $rule->category !== CookingCategory::Roast || !$low->includes($row)));
        \assert($open !== [], 'the roast table reaches above its low rows');

        return new self($stretch, $rule, $hasLowRows, $open);
    }

    private static function category(CaseFile $case, Stretch $stretch): CookingCategory
    {
        $product = $case->product;

        return match (true) {
            $product->animal->isPoultry(), $product->stuffed, $product->wild => CookingCategory::Poultry,
            $product->integrity === Integrity::NonIntact, $product->form === Form::Comminuted, $case->isPiercedBefore($stretch->endOrder) => CookingCategory::NonIntact,
            $product->form === Form::Roast => CookingCategory::Roast,
            default => CookingCategory::Cut,
        };
    }

    /** Every cook names its oven and set point, and every set point of it, later ones included, meets that oven's condition. */
    private static function ovenConditionsHold(CaseFile $case, Stretch $stretch): bool
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
            if ($oven === null || $set === null || !$case->rules->lowRoastRows->areOpenFor($oven, $set, $case->product->rawWeight)) {
                return false;
            }
        }

        return true;
    }
}
