<?php

declare(strict_types=1);

namespace Verjuicer\Core\Ruleset;

use Verjuicer\Core\Measure\Span;

/** Cooking of raw animal food, by category, and how its readings are weighed. */
final readonly class CookingRules implements RulePart
{
    /**
     * @param array<string, CookingRule> $rules by the value of its category, one for each
     * @param string $advisory the section that lets food be undercooked by intent
     * @param string $susceptible the section that forbids that for a highly susceptible population
     * @param Span $runGap how far apart readings at a temperature may lie and still be one run
     * @param Span $settled the time one settled reading stands for
     * @param Span $rawUntil how long after the start a reading at an abandoned spot may be of raw meat
     * @param Span $lastLook how long before it came off the last reading still shows that it was too cool
     */
    private function __construct(
        private array $rules,
        public LowRoastRows $lowRoastRows,
        public string $advisory,
        public string $susceptible,
        public Span $runGap,
        public Span $settled,
        public Span $rawUntil,
        public Span $lastLook,
    ) {
    }

    public static function key(): string
    {
        return 'cooking';
    }

    public static function read(RuleFields $fields): self
    {
        $rules = [];
        foreach (CookingCategory::cases() as $category) {
            $rules[$category->value] = CookingRule::read($category, $fields->part($category->value));
        }
        $record = $fields->part('record');
        $record->citation();

        return new self(
            $rules,
            LowRoastRows::read($fields->part('roast_low_rows')),
            $fields->part('advisory')->citation(),
            $fields->part('susceptible')->citation(),
            runGap: $record->span('run_gap_seconds'),
            settled: $record->span('settled_reading_seconds'),
            rawUntil: $record->span('raw_until_seconds'),
            lastLook: $record->span('last_look_seconds'),
        );
    }

    public function of(CookingCategory $category): CookingRule
    {
        return $this->rules[$category->value];
    }
}
