<?php

declare(strict_types=1);

namespace Verjuicer\App\Operations\Entry;

use Symfony\Contracts\Translation\TranslatorInterface;
use Verjuicer\App\Catalogue\Holding\HoldUnit;
use Verjuicer\App\Catalogue\Holding\HoldUnits;
use Verjuicer\App\Catalogue\Pit\Pit;
use Verjuicer\App\Catalogue\Pit\Pits;
use Verjuicer\App\Catalogue\Recipe\Recipe;
use Verjuicer\App\Catalogue\Recipe\Recipes;
use Verjuicer\App\Catalogue\Thermometer\Thermometers;
use Verjuicer\App\Platform\Wording\MeasureFormatter;
use Verjuicer\App\Site\Site\Site;
use Verjuicer\Core\Event\Kind;
use Verjuicer\Core\Food\TimePlan;
use Verjuicer\Core\Ruleset\RuleSetLibrary;
use Verjuicer\Core\Ruleset\TimeControlRules;

/** The lists of a site that fields of entries are chosen from, by the name of the field. */
final readonly class FieldLists
{
    public function __construct(
        private Pits $pits,
        private Recipes $recipes,
        private Thermometers $thermometers,
        private HoldUnits $units,
        private RuleSetLibrary $ruleSets,
        private TranslatorInterface $translator,
        private MeasureFormatter $figures,
    ) {
    }

    /**
     * Only those that are asked for: each is a question to the database.
     *
     * @param list<Kind> $kinds whose fields are filled in
     *
     * @return array<string, array<string>> `hot_hold.place` is of that kind alone; of `time_control.plan` the words by
     *     its values
     */
    public function of(Site $site, string $ruleSet, array $kinds): array
    {
        $lists = [];
        foreach ($kinds as $kind) {
            foreach (array_keys($kind->fields) as $field) {
                foreach ([$field, $kind->name().'.'.$field] as $name) {
                    $lists[$name] ??= match ($name) {
                        'pit' => array_map(static fn (Pit $pit): string => $pit->name, $this->pits->of($site)),
                        'recipe' => array_map(
                            static fn (Recipe $recipe): string => $recipe->name,
                            $this->recipes->of($site),
                        ),
                        'thermometer' => $this->thermometers->labels($site),
                        'time_control.plan' => $this->plans($site, $ruleSet),
                        'hot_hold.place' => array_map(
                            static fn (HoldUnit $unit): string => $unit->name,
                            $this->units->of($site),
                        ),
                        default => null,
                    };
                }
            }
        }

        return array_filter($lists, static fn (?array $list): bool => $list !== null);
    }

    /** @return array<string, string> the plans of time without heat, with what the code allows each */
    private function plans(Site $site, string $ruleSet): array
    {
        $rules = $this->ruleSets->get($ruleSet)->get(TimeControlRules::class);
        $plans = [];
        foreach (TimePlan::cases() as $plan) {
            $plans[$plan->value] = $this->translator->trans('step.plan_words.'.$plan->value, [
                '{limit}' => $this->figures->span($rules->limitOf($plan)->span),
                '{ceiling}' => $this->figures->threshold($rules->coldCeiling->threshold, $site->unit),
            ]);
        }

        return $plans;
    }
}
