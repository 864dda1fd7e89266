<?php

declare(strict_types=1);

namespace Verjuicer\Core\Assess;

use Verjuicer\Core\Assess\Evidence\CookOutcome;
use Verjuicer\Core\Assess\Evidence\Timeline;
use Verjuicer\Core\Assess\Finding\Countdown;
use Verjuicer\Core\Assess\Finding\Finding;
use Verjuicer\Core\Assess\Finding\Verdict;
use Verjuicer\Core\Measure\Instant;
use Verjuicer\Core\Record\Record;
use Verjuicer\Core\Ruleset\RuleSet;

/**
 * What one record shows under one rule set at one moment. Everything a page, a file or the board says of a batch is a
 * view of this.
 */
final readonly class Assessment
{
    /**
     * @param array<string, Verdict> $rulesJudged each rule that applied and its worst verdict
     * @param list<Finding> $findings
     * @param list<Countdown> $countdowns soonest first
     * @param list<string> $suspectReadings ids of events
     * @param Instant|null $nextTurn once this has passed, time alone may have changed the verdict
     * @param list<CookOutcome> $cooks what each cook shows on the readings to be believed, in order
     */
    public function __construct(
        public Record $record,
        public RuleSet $rules,
        public Timeline $timeline,
        public Verdict $verdict,
        public array $rulesJudged,
        public array $findings,
        public array $countdowns,
        public DangerZone $dangerZone,
        public array $suspectReadings,
        public ?Instant $nextTurn,
        public array $cooks,
    ) {
    }
}
