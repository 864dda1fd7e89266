<?php

declare(strict_types=1);

namespace Verjuicer\App\Work\Batch;

use Verjuicer\App\Ledger\Assessment\Assessments;
use Verjuicer\App\Ledger\Batch\Batch;
use Verjuicer\App\Platform\Wording\FindingText;
use Verjuicer\Core\Assess\OpenActions;

/** What asks for a corrective action nobody has taken yet, and what the code leaves to do about it. */
final readonly class OpenActionList
{
    /** Says who decides: nothing that could have been done. */
    private const DECIDE = 'cool.decide';

    public function __construct(private Assessments $assessments, private FindingText $findings)
    {
    }

    /**
     * @return list<array{rule: string, verdict: string, sentence: string, citation: string, options: list<string>,
     *     advice: string|null}> worst first
     */
    public function of(Batch $batch): array
    {
        $assessment = $this->assessments->of($batch);
        $findings = WorstFirst::of($assessment->findings);
        $actions = [];
        foreach (OpenActions::of($assessment) as $rule) {
            foreach ($findings as $finding) {
                if ($finding->rule === $rule && $finding->verdict !== null) {
                    $sentences = array_combine($finding->options, $this->findings->options($finding, $assessment));
                    $actions[] = [
                        'rule' => $rule,
                        'verdict' => $finding->verdict->value,
                        'sentence' => $this->findings->sentence($finding, $assessment),
                        'citation' => $finding->citation,
                        'options' => array_values(array_diff_key($sentences, [self::DECIDE => true])),
                        'advice' => $sentences[self::DECIDE] ?? null,
                    ];
                    break;
                }
            }
        }

        return $actions;
    }
}
