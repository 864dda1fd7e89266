<?php

declare(strict_types=1);

namespace Verjuicer\App\Operations\Entry;

use Verjuicer\App\Ledger\Batch\Batch;
use Verjuicer\Core\Assess\Evidence\Timeline;
use Verjuicer\Core\Event\BeginsStage;
use Verjuicer\Core\Event\CarriesSurfaceInside;
use Verjuicer\Core\Event\Detail;
use Verjuicer\Core\Event\EndsBatch;
use Verjuicer\Core\Event\Kinds;
use Verjuicer\Core\Food\Form;
use Verjuicer\Core\Food\Integrity;
use Verjuicer\Core\Food\NoteStep;
use Verjuicer\Core\Measure\Instant;
use Verjuicer\Core\Ruleset\RuleSet;
use Verjuicer\Core\Ruleset\SlipReason;

/**
 * Which steps are hardly possible: in an order that cannot be, of more than there is, into the cold while it is warm.
 */
final readonly class StepDoubts
{
    /** What is said about food rather than done to it: at any time. */
    private const REMARKS = [Kinds\Note::class, Kinds\Action::class, Kinds\Voided::class, Kinds\Close::class];
    private const HEAT = [Kinds\Cook::class, Kinds\Reheat::class, Kinds\HotHold::class];

    /**
     * @param int|null $gramsLeft what is left of it; null where nobody weighed it
     * @param list<string> $piercing words for a blade, a needle or a stuffing that went into the meat
     */
    public function __construct(
        private RuleSet $rules,
        private Timeline $timeline,
        private Batch $batch,
        private ?int $gramsLeft,
        private array $piercing,
    ) {
    }

    /**
     * @param int|null $piece the one it is done to, if it is not done to all
     *
     * @return list<SlipReason>
     */
    public function of(Detail $detail, Instant $at, ?int $piece): array
    {
        return array_values(
            array_filter([
                $this->order($detail, $at),
                $this->isTooMuch($detail) ? SlipReason::TooMuch : null,
                $this->isWarmIntoCold($detail, $at, $piece) ? SlipReason::WarmIntoCold : null,
                $this->isPiercedByWords($detail) ? SlipReason::Pierced : null,
            ]),
        );
    }

    private function order(Detail $detail, Instant $at): ?SlipReason
    {
        $first = $this->timeline->events[0] ?? null;
        if ($first === null || \in_array($detail::class, self::REMARKS, true)) {
            return null;
        }
        if ($detail instanceof Kinds\Received) {
            return $this->hadBy($at, Kinds\Cook::class) ? SlipReason::ReceivedAfterCook : null;
        }
        $end = $this->timeline->end;

        return match (true) {
            $first->at->isAfter($at) => SlipReason::BeforeItBegan,
            $end !== null && $at->isAfter($end) && !($detail instanceof EndsBatch) => SlipReason::AfterItEnded,
            $detail instanceof EndsBatch && $this->happenedAfter($at) => SlipReason::EndedBeforeMore,
            $this->needsHeat($detail) && !$this->hadBy($at, ...self::HEAT) => SlipReason::NeverOnHeat,
            default => null,
        };
    }

    /** What was bought cooked, and what is no meat, need not have been on this kitchen's heat. */
    private function needsHeat(Detail $detail): bool
    {
        $isCookedElsewhere = \in_array($this->batch->form, [Form::CommercialReadyToEat, Form::Side], true);

        return $detail instanceof Kinds\Rest || ($detail instanceof Kinds\HotHold && !$isCookedElsewhere);
    }

    /** @param class-string<Detail> ...$kinds */
    private function hadBy(Instant $at, string ...$kinds): bool
    {
        foreach ($this->timeline->events as $event) {
            if ($event->is(...$kinds) && !$event->at->isAfter($at)) {
                return true;
            }
        }

        return false;
    }

    private function happenedAfter(Instant $at): bool
    {
        foreach ($this->timeline->events as $event) {
            $isOfFood =
                $event->detail instanceof Kinds\Reading
                || ($event->detail instanceof BeginsStage && !($event->detail instanceof EndsBatch));
            if ($isOfFood && $event->at->isAfter($at)) {
                return true;
            }
        }

        return false;
    }

    private function isTooMuch(Detail $detail): bool
    {
        $weight = match (true) {
            $detail instanceof Kinds\Serve, $detail instanceof Kinds\Discard => $detail->weightKg,
            $detail instanceof Kinds\Note
                && \in_array($detail->step, [NoteStep::ServedPart, NoteStep::DiscardedPart], true) => $detail->weightKg,
            default => null,
        };
        $weighed = $detail instanceof Kinds\Note && $detail->step === NoteStep::Weighed ? $detail->totalKg : null;
        $all = $this->batch->grams();
        $left = $this->gramsLeft ?? $all;

        return ($weight !== null && $left !== null && $weight->grams() > $left)
            || ($weighed !== null && $all !== null && $weighed->grams() > $all);
    }

    /** "Studded with garlic" in a note: the surface went inside; the stricter rule only follows if it is recorded. */
    private function isPiercedByWords(Detail $detail): bool
    {
        $words = match (true) {
            $detail instanceof Kinds\Note => $detail->text,
            $detail instanceof Kinds\Season, $detail instanceof Kinds\Sauce => $detail->recipe,
            default => null,
        };
        if ($words === null || $this->batch->integrity === Integrity::NonIntact) {
            return false;
        }
        foreach ($this->timeline->events as $event) {
            if ($event->detail instanceof CarriesSurfaceInside) {
                return false;
            }
        }

        preg_match_all('/\pL+/u', mb_strtolower($words), $found);

        return array_intersect($found[0], $this->piercing) !== [];
    }

    /** By the last reading of each piece that is put there; once it was pulled or chopped, of the pan. */
    private function isWarmIntoCold(Detail $detail, Instant $at, ?int $piece): bool
    {
        $isPut = $detail instanceof Kinds\ColdHold || $detail instanceof Kinds\Freeze || $detail instanceof Kinds\Pack;
        if (!$isPut) {
            return false;
        }
        $pulled = \PHP_INT_MAX;
        foreach ($this->timeline->events as $event) {
            $pulled = $event->is(Kinds\Pull::class) && !$event->at->isAfter($at) ? $event->at->epoch : $pulled;
        }
        $last = [];
        foreach ($this->timeline->readings->all() as $reading) {
            if ($reading->at <= $at->epoch) {
                $last[$reading->at >= $pulled ? 'pan' : $reading->piece] = $reading;
            }
        }
        $last = isset($last['pan'])
            ? [$last['pan']]
            : ($piece === null
                ? $last
                : array_intersect_key($last, [$piece => true]));
        foreach ($last as $reading) {
            if ($reading->temp->isAbove($this->rules->limits()->cold->threshold)) {
                return true;
            }
        }

        return false;
    }
}
