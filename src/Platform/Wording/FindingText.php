<?php

declare(strict_types=1);

namespace Verjuicer\App\Platform\Wording;

use Symfony\Contracts\Translation\TranslatorInterface;
use Verjuicer\Core\Assess\Assessment;
use Verjuicer\Core\Assess\Finding\Finding;
use Verjuicer\Core\Measure\Instant;
use Verjuicer\Core\Measure\LocalDate;
use Verjuicer\Core\Measure\Span;
use Verjuicer\Core\Measure\Temperature;
use Verjuicer\Core\Measure\Threshold;
use Verjuicer\Core\Ruleset\ReheatingRules;

/** Makes the sentence of a finding from its facts: the one place, for page, file and command alike. */
final readonly class FindingText
{
    public function __construct(private TranslatorInterface $translator, private MeasureFormatter $figures)
    {
    }

    public function sentence(Finding $finding, Assessment $assessment): string
    {
        $values = [];
        foreach ($finding->values as $name => $value) {
            $values['{'.$name.'}'] = $this->value($value, $assessment);
        }
        foreach (['need' => 'need', 'category' => 'category'] as $name => $group) {
            if (isset($values['{'.$name.'}'])) {
                $values['{'.$name.'}'] = $this->translator->trans(
                    $group.'.'.$values['{'.$name.'}'],
                    $values,
                    'findings',
                );
            }
        }
        if (isset($values['{stage}'])) {
            $values['{stage}'] = $this->translator->trans('event.'.$values['{stage}'].'.name');
        }

        return $this->translator->trans($finding->message, $values, 'findings');
    }

    /** @return list<string> possible actions, most careful first */
    public function options(Finding $finding, Assessment $assessment): array
    {
        $reheating = $assessment->rules->get(ReheatingRules::class);
        $values = [
            '{reheat}' => $this->value($reheating->own->threshold, $assessment),
            '{reheat_within}' => $this->value($reheating->within->span, $assessment),
        ];

        return array_map(
            fn (string $option): string => $this->translator->trans('option.'.$option, $values, 'findings'),
            $finding->options,
        );
    }

    private function value(
        Temperature|Threshold|Instant|LocalDate|Span|string|int $value,
        Assessment $assessment,
    ): string {
        $site = $assessment->record->site;

        return match (true) {
            $value instanceof Temperature => $this->figures->temperature($value),
            $value instanceof Threshold => $this->figures->threshold($value, $site->unit),
            $value instanceof Instant => $this->figures->instant($value, $site->zone, $assessment->timeline->asOf),
            $value instanceof LocalDate => $this->figures->date($value),
            $value instanceof Span => $this->figures->span($value),
            default => (string) $value,
        };
    }
}
