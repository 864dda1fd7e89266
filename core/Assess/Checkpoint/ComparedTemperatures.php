<?php

declare(strict_types=1);

namespace Verjuicer\Core\Assess\Checkpoint;

use Verjuicer\Core\Assess\Evidence\TrackReading;
use Verjuicer\Core\Measure\TemperatureUnit;
use Verjuicer\Core\Measure\Threshold;
use Verjuicer\Core\Record\RecordedProduct;
use Verjuicer\Core\Ruleset\CookingCategory;
use Verjuicer\Core\Ruleset\CookingRow;
use Verjuicer\Core\Ruleset\CookingRules;
use Verjuicer\Core\Ruleset\CoolingRules;
use Verjuicer\Core\Ruleset\ReheatingRules;
use Verjuicer\Core\Ruleset\RuleSet;
use Verjuicer\Core\Ruleset\ThawingRules;
use Verjuicer\Core\Ruleset\TimeControlRules;

/** Every temperature that a check may compare a reading of this product with. */
final class ComparedTemperatures
{
    public const COLD = 0;
    /** The hot limit, and that of a roast. */
    public const HOT = [1, 2];

    /** From here on, rows of its cook. */
    public readonly int $firstRow;

    /** @var list<Threshold> in this order */
    private readonly array $limits;

    /** @var list<CookingRow> of every category it may come to be of, from the coolest to the hottest */
    public readonly array $rows;

    /** @var array<string, list<int>> by unit: the levels of the rows in ninetieths of a degree Celsius */
    public readonly array $rowLevels;

    /** @var array<string, list<int>> by unit: all levels that are printed, from the coolest to the hottest */
    private readonly array $levels;

    /** @var array<string, list<int>> by unit and place between them: below, at or above each limit, −1, 0 or 1 */
    private array $sides = [];

    public function __construct(RuleSet $rules, RecordedProduct $product)
    {
        $limits = $rules->limits();
        $reheating = $rules->get(ReheatingRules::class);
        $this->rows = self::rowsOf($rules->get(CookingRules::class), $product);
        $this->limits = [
            $limits->cold->threshold,
            $limits->hot->threshold,
            $limits->hotRoast->threshold,
            $rules->get(CoolingRules::class)->middle->threshold,
            $reheating->own->threshold,
            $reheating->commercial->threshold,
            $rules->get(ThawingRules::class)->runningWater->threshold,
            $rules->get(TimeControlRules::class)->coldCeiling->threshold,
            ...array_map(static fn (CookingRow $row): Threshold => $row->temperature, $this->rows),
        ];
        $this->firstRow = \count($this->limits) - \count($this->rows);
        $levels = $rowLevels = [];
        foreach (TemperatureUnit::cases() as $unit) {
            $all = array_map(
                static fn (Threshold $limit): int => $limit->printedIn($unit)->ninetieths,
                $this->limits,
            );
            $rowLevels[$unit->value] = \array_slice($all, $this->firstRow);
            $all = array_values(array_unique($all));
            sort($all);
            $levels[$unit->value] = $all;
        }
        $this->levels = $levels;
        $this->rowLevels = $rowLevels;
    }

    /** @return list<int> below, at or above each limit: −1, 0 or 1; the same list for readings between the same */
    public function sides(TrackReading $reading): array
    {
        $unit = $reading->temp->unit->value;
        $levels = $this->levels[$unit];
        $low = 0;
        $high = \count($levels);
        while ($low < $high) {
            $middle = ($low + $high) >> 1;
            if ($levels[$middle] < $reading->level) {
                $low = $middle + 1;
            } else {
                $high = $middle;
            }
        }
        $key = $unit.(($levels[$low] ?? null) === $reading->level ? '=' : '<').$low;

        return $this->sides[$key] ??= array_map(
            static fn (Threshold $limit): int => $limit->compare($reading->temp),
            $this->limits,
        );
    }

    /** @return list<CookingRow> */
    private static function rowsOf(CookingRules $rules, RecordedProduct $product): array
    {
        $rows = [];
        foreach ([false, true] as $isPierced) {
            $category = CookingCategory::of(
                $product->animal,
                $product->form,
                $product->integrity,
                $product->stuffed || $product->wild,
                $isPierced,
            );
            array_push($rows, ...$category === null ? [] : $rules->of($category)->rows);
        }
        usort(
            $rows,
            static fn (CookingRow $one, CookingRow $other): int => $one->temperature->compareTo($other->temperature),
        );

        return $rows;
    }
}
