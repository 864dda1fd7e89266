<?php

declare(strict_types=1);

namespace Verjuicer\Core\Assess\Check;

use Verjuicer\Core\Assess\Evidence\CaseFile;
use Verjuicer\Core\Assess\Finding\Countdown;
use Verjuicer\Core\Assess\Finding\CountdownKind;
use Verjuicer\Core\Assess\Finding\Finding;
use Verjuicer\Core\Assess\Finding\Findings;
use Verjuicer\Core\Event\EndsBatch;
use Verjuicer\Core\Event\Kinds\Freeze;
use Verjuicer\Core\Event\Kinds\Pack;
use Verjuicer\Core\Event\Kinds\Reheat;
use Verjuicer\Core\Food\Animal;
use Verjuicer\Core\Measure\DurationBounds;
use Verjuicer\Core\Measure\Span;
use Verjuicer\Core\Record\Event;
use Verjuicer\Core\Ruleset\VacuumPackRules;

/**
 * A vacuum pack made on site without an approved plan: out of the bag in time, frozen or not; and never fish that is
 * not frozen.
 */
final readonly class VacuumPackCheck implements RuleCheck
{
    /** The method that the application records for such a pack. */
    private const METHOD = 'vacuum';

    public function judge(CaseFile $case, Findings $findings): void
    {
        $packed = null;
        foreach ($case->timeline->happenings as $event) {
            if ($event->detail instanceof Pack) {
                $isVacuum = $event->detail->method === self::METHOD && $event->detail->planName === null;
                $packed = $this->closed($case, $findings, $packed, $event, $isVacuum);
            } elseif ($event->detail instanceof Reheat || $event->detail instanceof EndsBatch) {
                $packed = $this->closed($case, $findings, $packed, $event, false);
            }
        }
        if ($packed === null || $case->timeline->hasEnded()) {
            return;
        }
        $within = $case->rule(VacuumPackRules::class)->within;
        $held = $case->asOf->epoch - $packed->at->epoch;
        $deadline = $packed->at->plus($within->span);
        if ($held > $within->span->seconds) {
            $findings->add($this->finding($case, $packed, $held, 'house.vacuum_open'));
        }
        $findings->countdown(
            new Countdown('house.vacuum_pack', CountdownKind::House, null, $packed->at, $packed->at, $deadline),
        );
        $findings->turnsAfter($deadline);
    }

    /** @return Event|null the event that packed it */
    private function closed(CaseFile $case, Findings $findings, ?Event $packed, Event $now, bool $isVacuum): ?Event
    {
        if ($packed !== null) {
            $held = $now->at->epoch - $packed->at->epoch;
            if ($held > $case->rule(VacuumPackRules::class)->within->span->seconds) {
                $findings->add($this->finding($case, $packed, $held, 'house.vacuum_late'));
            }
        }
        if ($isVacuum && $case->product->animal === Animal::Fish && !$this->isFrozenAt($case, $now)) {
            $findings->add(
                new Finding(
                    rule: 'house.vacuum_pack',
                    verdict: null,
                    citation: $case->rule(VacuumPackRules::class)->fishCitation,
                    message: 'house.vacuum_fish',
                    values: ['at' => $now->at],
                    from: $now->at,
                    evidence: [$now->id],
                    options: ['discard'],
                ),
            );
        }

        return $isVacuum ? $now : null;
    }

    private function finding(CaseFile $case, Event $packed, int $held, string $message): Finding
    {
        $within = $case->rule(VacuumPackRules::class)->within;

        return new Finding(
            rule: 'house.vacuum_pack',
            verdict: null,
            citation: $within->citation,
            message: $message,
            values: ['held' => Span::ofSeconds($held), 'within' => $within->span, 'at' => $packed->at],
            from: $packed->at,
            elapsed: DurationBounds::ofSeconds($held, $held),
            limit: $within->span,
            evidence: [$packed->id],
            options: ['discard'],
        );
    }

    private function isFrozenAt(CaseFile $case, Event $packed): bool
    {
        foreach ($case->stagesOf(Freeze::class) as $stage) {
            if ($stage->from->epoch <= $packed->at->epoch && $packed->at->epoch < $stage->to->epoch) {
                return true;
            }
        }

        return false;
    }
}
