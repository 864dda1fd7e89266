<?php

declare(strict_types=1);

namespace Verjuicer\Core\Assess;

use Verjuicer\Core\Assess\Checkpoint\Checkpoint;
use Verjuicer\Core\Assess\Evidence\CaseFile;
use Verjuicer\Core\Assess\Evidence\SortedReadings;
use Verjuicer\Core\Assess\Evidence\SuspectReadings;
use Verjuicer\Core\Assess\Evidence\Timeline;
use Verjuicer\Core\Assess\Finding\Countdown;
use Verjuicer\Core\Assess\Finding\Finding;
use Verjuicer\Core\Assess\Finding\Findings;
use Verjuicer\Core\Assess\Finding\Verdict;
use Verjuicer\Core\Assess\Zone\ExposureLines;
use Verjuicer\Core\Measure\Instant;
use Verjuicer\Core\Record\Record;
use Verjuicer\Core\Ruleset\RuleSet;
use Verjuicer\Core\Ruleset\ThermometerRules;

/** The one place where verdicts are made. */
final readonly class Assessor
{
    /** @var list<Check\RuleCheck> */
    private array $checks;

    public function __construct()
    {
        $this->checks = [
            new Check\ReceivingCheck(),
            new Check\ThawCheck(),
            new Check\CookCheck(),
            new Check\HotHoldCheck(),
            new Check\CoolingCheck(),
            new Check\RestCheck(),
            new Check\ColdHoldCheck(),
            new Check\ReheatCheck(),
            new Check\TimeControlCheck(),
            new Check\DateMarkCheck(),
            new Check\PrepOutCheck(),
            new Check\ComeUpCheck(),
            new Check\PitLowCheck(),
            new Check\HoldRoundCheck(),
            new Check\CoolingRestartCheck(),
            new Check\ThermometerAgreementCheck(),
            new Check\ImpossibleReadingsCheck(),
            new Check\RawLeftoverCheck(),
            new Check\VacuumPackCheck(),
            new Check\SteamTableReheatCheck(),
            new Check\MixedCheck(),
            new Check\ProcedureCheck(),
            new Check\RawFishCheck(),
            new Check\SideCoolingCheck(),
            new Check\RoastAgainCheck(),
        ];
    }

    /**
     * Judges the record as it stood at this moment; never throws because of bad food.
     *
     * @param Checkpoint|null $abridged the omitted part of an abridged record; it is judged at no earlier moment
     */
    public function assess(Record $record, RuleSet $rules, Instant $asOf, ?Checkpoint $abridged = null): Assessment
    {
        $rules = $rules->stricter($record->site->house);
        $timeline = Timeline::of($record, $asOf, $abridged->leftOut ?? []);
        $suspects = SuspectReadings::of($record->thermometers, $rules->get(ThermometerRules::class)->tolerance);
        $sorted = $suspects->sorted($timeline->readings, $rules->house()->thermometerCheck);
        $suspectIds = $sorted->suspectIds;
        $case = new CaseFile($record->site, $record->product, $rules, $timeline, $sorted->believed);
        $findings = $this->run($case);
        if ($suspectIds !== []) {
            $this->addDoubt(
                $findings,
                $this->run(new CaseFile($record->site, $record->product, $rules, $timeline, $timeline->readings)),
            );
        }
        $rulesJudged = self::worstByRule($findings->all());
        self::addThermometerFindings($findings, $rules, $sorted, $timeline->readings->count());
        $countdowns = $findings->countdowns();
        usort(
            $countdowns,
            static fn (Countdown $one, Countdown $other): int => $one->deadline->epoch <=> $other->deadline->epoch,
        );

        return new Assessment(
            $record,
            $rules,
            $timeline,
            self::worst($rulesJudged, $timeline),
            $rulesJudged,
            $findings->all(),
            $countdowns,
            DangerZone::of($case, $abridged->lines ?? new ExposureLines()),
            $suspectIds,
            $findings->nextTurn(),
            $case->cooks(),
        );
    }

    private function run(CaseFile $case): Findings
    {
        $findings = new Findings($case->asOf);
        foreach ($this->checks as $check) {
            $check->judge($case, $findings);
        }

        return $findings;
    }

    /** Broken with the suspect readings but not without them: the record cannot show which is true. */
    private function addDoubt(Findings $believed, Findings $all): void
    {
        $verdicts = self::worstByRule($believed->all());
        foreach ($all->all() as $finding) {
            if ($finding->verdict === Verdict::Broken && ($verdicts[$finding->rule] ?? null) !== Verdict::Broken) {
                $believed->add($finding->restingOnSuspectReadings());
            }
        }
    }

    /**
     * @param list<Finding> $findings
     *
     * @return array<string, Verdict>
     */
    private static function worstByRule(array $findings): array
    {
        $worst = [];
        foreach ($findings as $finding) {
            if ($finding->verdict !== null) {
                $worst[$finding->rule] = $finding->verdict->worseOf($worst[$finding->rule] ?? Verdict::Met);
            }
        }

        return $worst;
    }

    /** @param array<string, Verdict> $rulesJudged */
    private static function worst(array $rulesJudged, Timeline $timeline): Verdict
    {
        if ($rulesJudged === []) {
            return Verdict::unproven(!$timeline->hasEnded());
        }

        return array_reduce(
            $rulesJudged,
            static fn (Verdict $worst, Verdict $one): Verdict => $worst->worseOf($one),
            Verdict::Met,
        );
    }

    private static function addThermometerFindings(
        Findings $findings,
        RuleSet $rules,
        SortedReadings $sorted,
        int $readings,
    ): void {
        $suspectIds = $sorted->suspectIds;
        $tolerance = $rules->get(ThermometerRules::class)->tolerance;
        $house = $rules->house();
        if ($suspectIds !== []) {
            $findings->add(
                new Finding(
                    rule: 'thermometer.suspect',
                    verdict: null,
                    citation: $tolerance->citation,
                    message: 'thermometer.suspect',
                    values: ['count' => \count($suspectIds)],
                    evidence: $suspectIds,
                    options: ['thermometer.adjust', 'thermometer.recheck_food'],
                ),
            );
        }
        $unchecked = $sorted->unchecked->first();
        if ($unchecked !== null) {
            $findings->add(
                new Finding(
                    rule: 'thermometer.unchecked',
                    verdict: null,
                    citation: $tolerance->citation,
                    message: 'thermometer.unchecked',
                    values: ['count' => $sorted->unchecked->count(), 'of' => $readings],
                    evidence: [$unchecked->id],
                    options: ['thermometer.check'],
                ),
            );
        }
        $overdue = $sorted->overdue->first();
        if ($overdue !== null) {
            $findings->add(
                new Finding(
                    rule: 'thermometer.overdue',
                    verdict: null,
                    citation: $house->citation,
                    message: 'thermometer.overdue',
                    values: [
                        'count' => $sorted->overdue->count(),
                        'of' => $readings,
                        'within' => $house->thermometerCheck,
                        'thermometers' => implode(', ', $sorted->overdue->thermometers()),
                    ],
                    evidence: [$overdue->id],
                    options: ['thermometer.check'],
                ),
            );
        }
    }
}
