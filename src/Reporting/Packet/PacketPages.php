<?php

declare(strict_types=1);

namespace Verjuicer\App\Reporting\Packet;

use Verjuicer\App\Ledger\Batch\Batch;
use Verjuicer\Core\Assess\ActionTaken;
use Verjuicer\Core\Assess\Assessment;
use Verjuicer\Core\Assess\Evidence\NeededProcedures;
use Verjuicer\Core\Assess\Finding\Finding;
use Verjuicer\Core\Assess\OpenActions;
use Verjuicer\Core\Record\Procedure;
use Verjuicer\Core\Record\Writer;
use Verjuicer\Core\Ruleset\RuleSet;

/** The batches of a packet as laid out, and their summary. */
final class PacketPages
{
    private const MISSED = 'house.hot_hold_check';

    /** @var list<string> HTML of each batch */
    public array $parts = [];

    /** @var array<string, array<string, int>> how many batches of each verdict, by rule */
    public array $rules = [];

    /** @var array<string, RuleSet> */
    public array $ruleSets = [];

    /** @var list<array{id: string, code: string, tag: int, name: string, verdict: string}> */
    public array $contents = [];

    /** The records in the open format, one a line. */
    public string $records = '';

    /** @var list<PacketDeviation> in the order of the batches */
    public array $deviations = [];

    /** @var array<string, Procedure> procedures that the batches were made by, by kind and version */
    public array $procedures = [];

    /** @var list<array{code: string, tag: int, sentence: string}> missed hot-holding checks */
    public array $missed = [];

    public function __construct(RuleSet $inForce)
    {
        $this->ruleSets[$inForce->id] = $inForce;
    }

    /**
     * @param \Closure(Finding): string $say the sentence of a finding
     * @param \Closure(list<PacketFinding>): string $render the HTML of the batch with these findings
     */
    public function add(
        Batch $batch,
        Assessment $assessment,
        RuleSet $rules,
        \Closure $say,
        \Closure $render,
    ): void {
        foreach ($assessment->rulesJudged as $rule => $verdict) {
            $this->rules[$rule][$verdict->value] = ($this->rules[$rule][$verdict->value] ?? 0) + 1;
        }
        ksort($this->rules);
        $this->ruleSets[$batch->ruleSet] = $rules;
        $this->records .= Writer::write($assessment->record, true)."\n";
        $open = OpenActions::of($assessment);
        $findings = PacketFinding::grouped($assessment->findings, $say);
        foreach ($findings as $finding) {
            $rule = $finding->of->rule;
            if ($finding->of->isWrong()) {
                $finding->deviation = \count($this->deviations) + 1;
                $this->deviations[] = new PacketDeviation(
                    $finding->deviation,
                    $batch->id->toRfc4122(),
                    $batch->tag.' · '.$batch->productName.' · '.$batch->code,
                    $batch->pieces,
                    $finding,
                    ActionTaken::about($assessment, $rule),
                    \in_array($rule, $open, true),
                );
            } elseif ($rule === self::MISSED) {
                $this->missed[] = ['code' => $batch->code, 'tag' => $batch->tag, 'sentence' => $finding->sentence];
            }
        }
        $record = $assessment->record;
        $followed = NeededProcedures::followedBy($record->site, $record->product, $assessment->timeline->events);
        foreach ($followed as $one) {
            $this->procedures["{$one->kind->value} $one->version"] = $one;
        }
        $this->parts[] = $render($findings);
        $this->contents[] = [
            'id' => $batch->id->toRfc4122(),
            'code' => $batch->code,
            'tag' => $batch->tag,
            'name' => $batch->productName,
            'verdict' => $assessment->verdict->value,
        ];
    }
}
