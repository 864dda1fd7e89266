<?php

declare(strict_types=1);

namespace Verjuicer\Core\Assess\Evidence;

use Verjuicer\Core\Event\Kinds\Cook;
use Verjuicer\Core\Event\Kinds\PitReading;
use Verjuicer\Core\Event\Kinds\PitSet;
use Verjuicer\Core\Event\Kinds\Rest;
use Verjuicer\Core\Food\Oven;
use Verjuicer\Core\Measure\Instant;
use Verjuicer\Core\Measure\Span;
use Verjuicer\Core\Measure\Temperature;
use Verjuicer\Core\Ruleset\CookingCategory;
use Verjuicer\Core\Ruleset\CookingRow;
use Verjuicer\Core\Ruleset\CookingRule;
use Verjuicer\Core\Ruleset\CookingRules;
use Verjuicer\Core\Ruleset\LowRoastRows;

/** A cook from first heat to leaving it for good, pauses and carry-over included, with the rows that are open to it. */
final readonly class CookWindow
{
    /** @param non-empty-list<CookingRow> $openRows from the coolest to the hottest */
    private function __construct(
        public OffHeatPeriod $stretch,
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
        foreach ($case->timeline->runsOf(Cook::class, Rest::class) as $run) {
            while ($run !== [] && !$run[0]->is(Cook::class)) {
                array_shift($run);
            }
            if ($run === []) {
                continue;
            }
            $stretch = new OffHeatPeriod($run);
            $category = CookingCategory::of(
                $product->animal,
                $product->form,
                $product->integrity,
                $product->stuffed || $product->wild,
                $case->isPiercedBefore($stretch->endOrder),
            );
            if ($category !== null) {
                $windows[] = self::of($case, $stretch, $category);
            }
        }

        return $windows;
    }

    /** When it left the heat for good: the end of the last cook in it. */
    public function offTheHeat(): Instant
    {
        $end = $this->stretch->from;
        foreach ($this->stretch->stages as $stage) {
            if ($stage->is(Cook::class)) {
                $end = $stage->to;
            }
        }

        return $end;
    }

    /** Whether it is off the heat by now: its last stage is a rest. */
    public function isOffTheHeat(): bool
    {
        return !$this->stretch->stages[\count($this->stretch->stages) - 1]->is(Cook::class);
    }

    private static function of(CaseFile $case, OffHeatPeriod $stretch, CookingCategory $category): self
    {
        $rules = $case->rule(CookingRules::class);
        $rule = $rules->of($category);
        $low = $rules->lowRoastRows;
        $lowRows = $category === CookingCategory::Roast ? self::lowRows($case, $stretch, $low) : LowRows::NoRoast;
        $open = \in_array($lowRows, [LowRows::Open, LowRows::NoRoast], true)
            ? $rule->rows
            : array_values(array_filter($rule->rows, static fn (CookingRow $row): bool => !$low->includes($row)));
        \assert($open !== [], 'the roast table reaches above its low rows');

        return new self($stretch, $rule, $lowRows, $open);
    }

    /**
     * Every cook names its oven and set point, and every set point of it, and every pit reading once it had time to
     * heat, meets that oven's condition.
     */
    private static function lowRows(CaseFile $case, OffHeatPeriod $stretch, LowRoastRows $low): LowRows
    {
        foreach ($stretch->stages as $stage) {
            $cook = $stage->event->detail;
            if ($cook instanceof Cook) {
                $state = self::ofOven($case, $cook->oven, $cook->set, $low);
                if ($state !== LowRows::Open) {
                    return $state;
                }
                $oven = $cook->oven;
            }
            for ($order = $stage->order + 1; $order < $stage->endOrder; ++$order) {
                $event = $case->timeline->happenings[$order] ?? null;
                if ($event === null) {
                    continue;
                }
                $degrees = match (true) {
                    $event->detail instanceof PitSet => $event->detail->set,
                    $event->detail instanceof PitReading
                        && $cook instanceof Cook
                        && Span::between($stage->from, $event->at)->isLongerThan($low->heatUp) => $event->detail->temp,
                    default => null,
                };
                $state = $degrees === null ? LowRows::Open : self::ofOven($case, $oven ?? null, $degrees, $low);
                if ($state !== LowRows::Open) {
                    return $state;
                }
            }
        }

        return LowRows::Open;
    }

    private static function ofOven(CaseFile $case, ?Oven $oven, ?Temperature $degrees, LowRoastRows $low): LowRows
    {
        $raw = $case->product->rawWeight;

        return match (true) {
            $oven === null => LowRows::OvenUnknown,
            $degrees === null => LowRows::SetUnknown,
            $low->areOpenFor($oven, $degrees, $raw) => LowRows::Open,
            $raw === null && $oven !== Oven::HighHumidity => LowRows::WeightUnknown,
            default => LowRows::Closed,
        };
    }
}
