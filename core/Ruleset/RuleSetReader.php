<?php

declare(strict_types=1);

namespace Verjuicer\Core\Ruleset;

use Verjuicer\Core\Food\Oven;
use Verjuicer\Core\Food\TimePlan;
use Verjuicer\Core\Json\Fields;
use Verjuicer\Core\Json\Problems;
use Verjuicer\Core\Measure\MalformedTemperature;
use Verjuicer\Core\Measure\Span;
use Verjuicer\Core\Measure\Temperature;
use Verjuicer\Core\Measure\TemperatureUnit;
use Verjuicer\Core\Measure\Threshold;
use Verjuicer\Core\Measure\Weight;

/** Reads a rule set file. A wrong file stops the deploy, naming every fault; a complete RuleSet or none. */
final class RuleSetReader
{
    public const VOCABULARY = 'verjuicer-ruleset/1';

    private Problems $problems;

    private function __construct(private readonly string $file)
    {
        $this->problems = new Problems();
    }

    /** @throws RuleSetProblem if the file is missing, not JSON, or lacks or misstates a number or a citation */
    public static function read(string $file): RuleSet
    {
        $json = is_file($file) ? file_get_contents($file) : false;
        if ($json === false) {
            throw RuleSetProblem::unreadable($file, 'there is no such file');
        }
        try {
            $data = json_decode($json, flags: \JSON_THROW_ON_ERROR);
        } catch (\JsonException $problem) {
            throw RuleSetProblem::unreadable($file, $problem->getMessage());
        }
        if (!$data instanceof \stdClass) {
            throw RuleSetProblem::unreadable($file, 'it is not a JSON object');
        }
        $reader = new self($file);
        $ruleSet = $reader->ruleSet(new Fields($data, null, '', $reader->problems));
        $reader->refuseProblems();

        return $ruleSet;
    }

    private function ruleSet(Fields $top): RuleSet
    {
        if ($top->requiredText('vocabulary') !== self::VOCABULARY) {
            $top->wrong('vocabulary', \sprintf('must be "%s"', self::VOCABULARY));
        }
        $limits = $this->part($top, 'limits');
        $cooling = $this->part($top, 'cooling');
        $low = $this->part($top, 'roast_low_rows');
        $dateMark = $this->part($top, 'date_mark');

        return new RuleSet(
            $top->requiredText('id') ?? '',
            $top->requiredText('title') ?? '',
            $top->requiredText('authority') ?? '',
            $top->requiredText('edition') ?? '',
            $top->requiredText('checked') ?? '',
            $this->citedThreshold($limits, 'receiving_cold'),
            $this->citedThreshold($limits, 'cold'),
            $this->citedThreshold($limits, 'hot'),
            $this->citedThreshold($limits, 'hot_roast'),
            $this->citedThreshold($limits, 'cooling_middle'),
            $this->citedThreshold($limits, 'reheat_own'),
            $this->citedThreshold($limits, 'reheat_commercial'),
            $this->citedThreshold($limits, 'time_control_cold_ceiling'),
            $this->cooking($this->part($top, 'cooking')),
            new LowRoastRows($this->citation($low), $this->threshold($this->part($low, 'below')), $this->ovens($low)),
            $this->citation($this->part($top, 'cooking_advisory')),
            $this->citedSpan($this->part($cooling, 'stage1')),
            $this->citedSpan($this->part($cooling, 'total')),
            $this->citedSpan($this->part($top, 'reheating')),
            $this->timeControl($this->part($top, 'time_control')),
            new DateMarkRules($this->citation($dateMark), $this->span($dateMark, 'after_seconds'), $dateMark->count('days', 1)),
            $this->citedSpan($this->part($top, 'vacuum_pack')),
            $this->monitoring($this->part($top, 'monitoring')),
            $this->tolerance($this->part($top, 'thermometer_tolerance'), null),
            $this->house($this->part($top, 'house')),
        );
    }

    /** @return array<string, CookingRule> */
    private function cooking(Fields $fields): array
    {
        $rules = [];
        foreach (CookingCategory::cases() as $category) {
            $part = $this->part($fields, $category->value);
            $rows = [];
            foreach ($part->objects('rows', true) as $row) {
                $read = new CookingRow($this->threshold($row), $this->span($row, 'seconds'));
                if ($rows !== [] && $rows[\count($rows) - 1]->temperature->compareTo($read->temperature) >= 0) {
                    $row->wrong('f', 'must be hotter than the row before it');
                }
                $rows[] = $read;
            }
            if ($rows === []) {
                $part->wrong('rows', 'must hold at least one row');
                $this->refuseProblems();
            }
            \assert($rows !== []);
            $rules[$category->value] = new CookingRule($category, $this->citation($part), $rows);
        }

        return $rules;
    }

    /** @return non-empty-list<OvenCondition> */
    private function ovens(Fields $fields): array
    {
        $split = Weight::ofGrams($fields->requiredWhole('weight_split_grams'));
        $conditions = [];
        foreach ($fields->objects('ovens', true) as $one) {
            $oven = $one->requiredChoice('oven', Oven::class);
            $weight = $one->requiredChoice('weight', WeightClass::class);
            $atLeast = $one->has('at_least') ? $this->threshold($this->part($one, 'at_least')) : null;
            $atMost = $one->has('at_most') ? $this->threshold($this->part($one, 'at_most')) : null;
            if (($atLeast === null) === ($atMost === null)) {
                $one->wrong('at_least', 'or "at_most": exactly one is required');
            }
            if ($oven !== null && $weight !== null) {
                $conditions[] = new OvenCondition($oven, $weight, $split, $atLeast, $atMost);
            }
        }
        if ($conditions === []) {
            $fields->wrong('ovens', 'must hold at least one condition');
            $this->refuseProblems();
        }
        \assert($conditions !== []);

        return $conditions;
    }

    private function timeControl(Fields $fields): TimeControlRules
    {
        $plans = $this->part($fields, 'plans');
        $start = $this->part($fields, 'start_reading');

        return new TimeControlRules(
            $this->citedSpan($this->part($plans, TimePlan::Hot4h->value)),
            $this->citedSpan($this->part($plans, TimePlan::Cold4h->value)),
            $this->citedSpan($this->part($plans, TimePlan::Cold6h->value)),
            $this->citation($fields),
            $this->citedSpan($this->part($fields, 'unread_at_most')),
            $this->span($start, 'seconds_before'),
            $this->span($start, 'seconds_after'),
        );
    }

    private function monitoring(Fields $fields): Monitoring
    {
        return new Monitoring(
            $this->citedSpan($this->part($fields, 'hot_hold_gap')),
            $this->citedSpan($this->part($fields, 'rest_gap')),
            $this->citedSpan($this->part($fields, 'cooking_run_gap')),
            $this->citedSpan($this->part($fields, 'settled_reading')),
        );
    }

    private function house(Fields $fields): HouseLimits
    {
        $citation = $this->citation($fields);
        $plausible = $this->part($fields, 'plausible');

        return new HouseLimits(
            $citation,
            $this->span($fields, 'prep_out_seconds'),
            $this->span($fields, 'come_up_non_intact_seconds'),
            $this->span($fields, 'come_up_intact_seconds'),
            $this->span($fields, 'hot_hold_check_seconds'),
            $this->span($fields, 'below_hot_seconds'),
            $this->tolerance($this->part($fields, 'agreement'), $citation),
            $this->span($fields, 'agreement_seconds'),
            new Plausible(
                $this->threshold($this->part($plausible, 'coldest')),
                $this->threshold($this->part($plausible, 'hottest')),
                $this->threshold($this->part($plausible, 'jump'))->printedIn(TemperatureUnit::Fahrenheit),
                $this->threshold($this->part($plausible, 'jump_per_minute'))->printedIn(TemperatureUnit::Fahrenheit),
            ),
            $this->span($fields, 'thermometer_check_seconds'),
            $this->tolerance($this->part($fields, 'pit_drift'), $citation),
            $this->span($fields, 'pit_drift_seconds'),
            $this->span($fields, 'late_entry_seconds'),
        );
    }

    private function tolerance(Fields $fields, ?string $citation): Tolerance
    {
        return new Tolerance(
            $citation ?? $this->citation($fields),
            $this->degrees($fields, TemperatureUnit::Fahrenheit)->tenths ?? 0,
            $this->degrees($fields, TemperatureUnit::Celsius)->tenths ?? 0,
        );
    }

    private function part(Fields $fields, string $name): Fields
    {
        return $fields->object($name) ?? new Fields(new \stdClass(), null, '', new Problems());
    }

    private function citation(Fields $fields): string
    {
        return $fields->requiredText('citation') ?? '';
    }

    private function span(Fields $fields, string $name): Span
    {
        return Span::ofSeconds($fields->requiredWhole($name));
    }

    private function citedSpan(Fields $fields): CitedSpan
    {
        return new CitedSpan($this->span($fields, 'seconds'), $this->citation($fields));
    }

    private function citedThreshold(Fields $limits, string $name): CitedThreshold
    {
        $fields = $this->part($limits, $name);

        return new CitedThreshold($this->threshold($fields), $this->citation($fields));
    }

    private function threshold(Fields $fields): Threshold
    {
        $fahrenheit = $this->degrees($fields, TemperatureUnit::Fahrenheit);
        $celsius = $this->degrees($fields, TemperatureUnit::Celsius);
        if ($fahrenheit !== null && $celsius !== null) {
            return Threshold::ofPair($fahrenheit, $celsius);
        }
        if ($fahrenheit === null && $celsius === null) {
            $fields->wrong('f', 'or "c" is missing: a limit is given in °F, in °C or in both');
        }

        return Threshold::ofOne($fahrenheit ?? $celsius ?? Temperature::ofTenths(0, TemperatureUnit::Celsius));
    }

    private function degrees(Fields $fields, TemperatureUnit $unit): ?Temperature
    {
        $number = $fields->number($unit->member());
        if ($number === null) {
            return null;
        }
        try {
            return Temperature::parse((string) $number, $unit);
        } catch (MalformedTemperature $problem) {
            $fields->wrongBy($unit->member(), $problem);

            return null;
        }
    }

    /** @throws RuleSetProblem if anything was wrong so far */
    private function refuseProblems(): void
    {
        $problems = $this->problems->all();
        if ($problems !== []) {
            throw RuleSetProblem::invalid($this->file, $problems);
        }
    }
}
