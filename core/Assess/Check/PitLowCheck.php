<?php

declare(strict_types=1);

namespace Verjuicer\Core\Assess\Check;

use Verjuicer\Core\Assess\Evidence\CaseFile;
use Verjuicer\Core\Assess\Finding\Countdown;
use Verjuicer\Core\Assess\Finding\CountdownKind;
use Verjuicer\Core\Assess\Finding\Finding;
use Verjuicer\Core\Assess\Finding\Findings;
use Verjuicer\Core\Event\Detail;
use Verjuicer\Core\Event\Kinds\Cook;
use Verjuicer\Core\Event\Kinds\Note;
use Verjuicer\Core\Event\Kinds\PitReading;
use Verjuicer\Core\Event\Kinds\PitSet;
use Verjuicer\Core\Food\PitSign;
use Verjuicer\Core\Measure\Span;
use Verjuicer\Core\Pit\PitEntry;
use Verjuicer\Core\Pit\PitExcursion;
use Verjuicer\Core\Pit\PitLog;
use Verjuicer\Core\Record\Event;

/** House limit: the pit that food is in now has read too far below its set point for too long. */
final readonly class PitLowCheck implements RuleCheck
{
    private const RULE = 'house.pit_low';

    public function judge(CaseFile $case, Findings $findings): void
    {
        $stage = $case->timeline->stage();
        $cook = $stage?->event->detail;
        if ($stage === null || !$cook instanceof Cook) {
            return;
        }
        $entries = $ids = [];
        foreach ($case->timeline->events as $order => $event) {
            $entry = $order < $stage->order ? null : self::entry($event);
            if ($entry !== null) {
                $entries[] = $entry;
                $ids[] = $event->id;
            }
        }
        $house = $case->rules->house();
        $strays = (new PitLog($entries))->strays($house->pitDrift, Span::ofSeconds(0), $case->asOf);
        $low = $strays[\count($strays) - 1] ?? null;
        if ($low === null || !$low->isOpen || $low->isHot) {
            return;
        }
        $deadline = $low->from->plus($house->pitDriftFor);
        $findings->turnsAfter($deadline);
        if ($case->asOf->epoch < $deadline->epoch) {
            return;
        }
        $findings->add($this->finding($case, $low, $ids));
        $findings->countdown(
            new Countdown(self::RULE, CountdownKind::House, null, $low->from, $low->from, $deadline, null),
        );
    }

    /** @param list<string> $ids of the events that say how the pit stood */
    private function finding(CaseFile $case, PitExcursion $low, array $ids): Finding
    {
        $house = $case->rules->house();

        return new Finding(
            rule: self::RULE,
            verdict: null,
            citation: $house->citation,
            message: 'house.pit_low',
            values: [
                'temp' => $low->worst,
                'set' => $low->set,
                'for' => Span::between($low->from, $low->to),
                'from' => $low->from,
                'limit' => $house->pitDriftFor,
            ],
            from: $low->from,
            to: null,
            limit: $house->pitDriftFor,
            evidence: \array_slice($ids, -1),
        );
    }

    private static function entry(Event $event): ?PitEntry
    {
        $detail = $event->detail;
        [$sign, $temp] = match (true) {
            $detail instanceof Cook => [PitSign::Set, $detail->set],
            $detail instanceof PitSet => [PitSign::Set, $detail->set],
            $detail instanceof PitReading => [PitSign::Reading, $detail->temp],
            default => [self::sign($detail), null],
        };

        return $sign === null || ($sign === PitSign::Set && $temp === null)
            ? null
            : new PitEntry($event->at, $sign, $temp);
    }

    private static function sign(Detail $detail): ?PitSign
    {
        $signs = [PitSign::Lit, PitSign::Preheated, PitSign::Out];

        return $detail instanceof Note && \in_array($detail->pitSign, $signs, true) ? $detail->pitSign : null;
    }
}
