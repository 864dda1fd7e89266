<?php

declare(strict_types=1);

namespace Verjuicer\App\Book\Packet;

use Verjuicer\App\Ledger\Batch\Batch;
use Verjuicer\Core\Assess\Assessment;
use Verjuicer\Core\Ruleset\RuleSet;

/** The batches of a packet as they are laid out, and what they come to together. */
final class PacketPages
{
    /** @var list<string> HTML of each batch */
    public array $parts = [];

    /** @var array<string, array<string, int>> how many batches of each verdict, by rule */
    public array $rules = [];

    /** @var array<string, RuleSet> */
    public array $ruleSets = [];

    /** @var list<array{id: string, code: string, tag: int, name: string, verdict: string}> */
    public array $contents = [];

    public function __construct(RuleSet $inForce)
    {
        $this->ruleSets[$inForce->id] = $inForce;
    }

    public function add(Batch $batch, Assessment $assessment, RuleSet $rules, string $html): void
    {
        foreach ($assessment->rulesJudged as $rule => $verdict) {
            $this->rules[$rule][$verdict->value] = ($this->rules[$rule][$verdict->value] ?? 0) + 1;
        }
        ksort($this->rules);
        $this->ruleSets[$batch->ruleSet] = $rules;
        $this->parts[] = $html;
        $this->contents[] = [
            'id' => $batch->id->toRfc4122(),
            'code' => $batch->code,
            'tag' => $batch->tag,
            'name' => $batch->productName,
            'verdict' => $assessment->verdict->value,
        ];
    }
}
