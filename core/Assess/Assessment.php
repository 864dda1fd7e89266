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

/** The result of judging one record under one rule set at one moment. Pages, files and the board are views of it. */
final readonly class Assessment
{
    /**
     * @param array<string, Verdict> $rulesJudged each rule that applied and its worst verdict
     * @param list<Finding> $findings
     * @param list<Countdown> $countdowns soonest first
     * @param list<string> $suspectReadings ids of events
     * @param Instant|null $nextTurn once this has passed, time alone may have changed the verdict
     * @param list<CookOutcome> $cooks the result of each cook by its trusted readings, in order
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
