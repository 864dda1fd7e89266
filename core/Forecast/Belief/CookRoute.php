<?php

declare(strict_types=1);

namespace Verjuicer\Core\Forecast\Belief;

use Verjuicer\Core\Assess\Assessment;
use Verjuicer\Core\Event\Kinds\ColdHold;
use Verjuicer\Core\Event\Kinds\Cook;
use Verjuicer\Core\Event\Kinds\Cool;
use Verjuicer\Core\Event\Kinds\Freeze;
use Verjuicer\Core\Event\Kinds\Note;
use Verjuicer\Core\Event\Kinds\PitReading;
use Verjuicer\Core\Event\Kinds\PitSet;
use Verjuicer\Core\Event\Kinds\Prep;
use Verjuicer\Core\Event\Kinds\Pull;
use Verjuicer\Core\Event\Kinds\Reheat;
use Verjuicer\Core\Event\Kinds\Thaw;
use Verjuicer\Core\Event\Kinds\Unwrap;
use Verjuicer\Core\Event\Kinds\Wrap;
use Verjuicer\Core\Food\Holding;
use Verjuicer\Core\Food\PitSign;
use Verjuicer\Core\Measure\Temperature;

/**
 * The surroundings of a piece since it went on the heat, or since it became another thing, by the record, and from now
 * on by the plan.
 */
final readonly class CookRoute
{
    private const SETTLES = 1200; // seconds in which a pit follows another set point
    private const FORGETS = 3600; // seconds in which a pit returns to its set point
    private const STAYS_OFF = 0.6; // of the difference between a pit and its set point
    public const ALWAYS = \PHP_INT_MAX >> 1; // the time of facts that hold throughout
    private const LID_COSTS = 40.0; // °C of the air under an open lid
    private const LID_FALLS = 90; // seconds in which it does
    private const LID_BACK = 600; // seconds after which the air is as before
    private const LID_OPEN = 180; // seconds, if no closing was recorded
    private const MISSED = 1800; // seconds after which a planned step is no longer expected
    private const PULLED_DEPTH = 0.06; // m, if not recorded

    /** @var list<ColdAir|null> of each leg */
    public array $coldAir;

    /**
     * @param non-empty-list<Leg> $legs in order
     * @param bool $isFromCold whether it begins as meat out of the cold; else as warm as it was first read
     * @param list<array{float, Leg}> $atCelsius legs that begin at a meat temperature, in order
     */
    private function __construct(public array $legs, public bool $isFromCold, public array $atCelsius)
    {
        $this->coldAir = array_map(static fn (Leg $leg): ?ColdAir => ColdAir::of($leg), $legs);
    }

    /**
     * @param list<PlannedSteps> $plan
     *
     * @return self|null null where it is on no heat and has left none
     */
    public static function of(Assessment $assessment, int $piece, array $plan = []): ?self
    {
        $before = [];
        $leg = $set = $lid = null;
        $isFromCold = $wasHot = false;
        $off = [];
        $depthMm = $assessment->record->portion?->depthMm;
        foreach ($assessment->timeline->events as $event) {
            $detail = $event->detail;
            $at = $event->at->epoch;
            if ($detail instanceof Cook) {
                [$set, $off] = [self::celsius($detail->set) ?? $set, []];
                $isOnHeat = $leg !== null && $leg->holding === null;
                [$isFromCold, $wasHot] = [$isOnHeat ? $isFromCold : !$wasHot, true];
                $before = $isOnHeat ? [...$before, $leg] : [];
                $wrap = $isOnHeat ? $leg->wrap : null;
                $leg = new Leg($at, null, $set === null ? [] : [[$at, $set]], $wrap, false, null);
            } elseif ($detail instanceof Reheat || $detail instanceof Freeze || $detail instanceof Thaw) {
                [$before, $leg, $isFromCold] = [[], null, false];
                $wasHot = $wasHot || $detail instanceof Reheat;
            } elseif (($detail instanceof ColdHold || $detail instanceof Prep) && !$wasHot) {
                continue; // raw
            } elseif (($place = Place::of($detail)) !== null) {
                $wasHot = true;
                $depth = $place->depth;
                if ($detail instanceof Cool && $depthMm !== null && ($before[0] ?? $leg)?->depth === null) {
                    $depth ??= $depthMm / 1000;
                }
                $before = $depth !== null || $leg === null ? [] : [...$before, $leg];
                $isFromCold = $depth === null && $isFromCold;
                $air = $place->around === null ? [] : [[$at, $place->around]];
                $wrap = $depth === null ? $leg?->wrap : null;
                $leg = new Leg($at, $place->holding ?? Holding::Cabinet, $air, $wrap, $place->isCovered, $depth);
            } elseif ($leg === null) {
                continue;
            } elseif ($detail instanceof PitReading) {
                $read = $detail->temp->ninetieths / 90;
                if ($set !== null && $leg->holding === null) {
                    $off[] = $read - $set;
                }
                $leg = $leg->in([...self::until($leg->air, $at), [$at, $read]]);
            } elseif ($detail instanceof Note && $detail->pitSign === PitSign::LidOpened && $leg->holding === null) {
                $lid = $at;
                $leg = $leg->in(self::opened($leg->air, $at, $at + self::LID_OPEN));
            } elseif ($detail instanceof Note && $detail->pitSign === PitSign::LidClosed && $lid !== null) {
                $leg = $leg->holding === null ? $leg->in(self::opened($leg->air, $lid, $at)) : $leg;
                $lid = null;
            } elseif ($detail instanceof PitSet) {
                [$set, $off] = [$detail->set->ninetieths / 90, []];
                $leg = $leg->in(self::turned($leg->air, $at, $set));
            } elseif ($detail instanceof Wrap || $detail instanceof Unwrap) {
                if ($detail->piece === null || $detail->piece === $piece) {
                    $before[] = $leg;
                    $with = $detail instanceof Wrap ? mb_strtolower($detail->with ?? 'foil') : null;
                    $leg = new Leg($at, $leg->holding, $leg->air, $with, $leg->isCovered, null);
                }
            } elseif ($detail instanceof Pull) {
                [$before, $isFromCold] = [[], false];
                $leg = new Leg($at, $leg->holding ?? Holding::Counter, [], null, false, self::PULLED_DEPTH);
            }
        }
        if ($leg === null) {
            return null;
        }
        if ($set !== null && $off !== [] && $leg->holding === null) {
            // A pit away from its set point returns to most of it.
            $recent = \array_slice($off, -4);
            $stays = (self::STAYS_OFF * array_sum($recent)) / \count($recent);
            $last = $leg->air[\count($leg->air) - 1][0] ?? $leg->from;
            $leg = $leg->in([...$leg->air, [$last + self::FORGETS, $set + $stays]]);
        }

        return self::planned([...$before, $leg], $isFromCold, $plan, $assessment->timeline->asOf->epoch);
    }

    /**
     * The same from where it left the heat, or from a moment on it: as if it had been put there as warm as it was read.
     */
    public function later(int $moment): self
    {
        $legs = [];
        foreach ($this->legs as $leg) {
            if ($leg->holding !== null) {
                $legs[] = $leg;
            }
        }
        if ($legs !== []) {
            return new self($legs, false, $this->atCelsius);
        }
        $legs = [$this->legs[0]->beginning($moment)];
        foreach (\array_slice($this->legs, 1) as $leg) {
            if ($leg->from <= $moment) {
                $legs = [$leg->beginning($moment)];
            } else {
                $legs[] = $leg;
            }
        }

        return new self($legs, false, $this->atCelsius);
    }

    /** When it left the heat, in seconds since 1970; null while it is on it. */
    public function leftHeat(): ?int
    {
        foreach ($this->legs as $leg) {
            if ($leg->holding !== null) {
                return $leg->from;
            }
        }

        return null;
    }

    /** Whether it is cooled where it is now. */
    public function isInTheCold(): bool
    {
        return $this->legs[\count($this->legs) - 1]->holding?->isCold() === true;
    }

    public function then(Leg $leg): self
    {
        return new self([...$this->legs, $leg], $this->isFromCold, []);
    }

    /**
     * Raw meat on the heat from the moment 0 on, as a plan has it.
     *
     * @param float $set °C of the pit
     * @param list<PlannedSteps> $plan
     */
    public static function onTheHeat(float $set, array $plan): self
    {
        return self::planned([new Leg(0, null, [[0, $set]], null, false, null)], true, $plan, 0);
    }

    /**
     * One place from a moment on.
     *
     * @param float|null $around °C of the place if known: no load has raised it yet
     */
    public static function ahead(Holding $holding, ?float $around, ?float $depth, bool $isCovered, int $from): self
    {
        $air = $around === null ? [] : [[self::ALWAYS, $around]];

        return new self([new Leg($from, $holding, $air, null, $isCovered, $depth)], false, []);
    }

    /**
     * @param non-empty-list<Leg> $legs
     * @param list<PlannedSteps> $plan
     */
    private static function planned(array $legs, bool $isFromCold, array $plan, int $now): self
    {
        $last = $legs[\count($legs) - 1];
        $atCelsius = [];
        if ($last->holding !== null) {
            return new self($legs, $isFromCold, []);
        }
        usort(
            $plan,
            static fn (PlannedSteps $one, PlannedSteps $other): int => [$one->at ?? \PHP_INT_MAX, $one->celsius]
                <=> [$other->at ?? \PHP_INT_MAX, $other->celsius],
        );
        foreach ($plan as $one) {
            $isWrapped = $last->wrap !== null;
            if (
                $one->what === PlannedSteps::OFF
                || ($one->at !== null && $one->at < $now - self::MISSED)
                || ($one->what === PlannedSteps::WRAP && $isWrapped)
                || ($one->what === PlannedSteps::UNWRAP && !$isWrapped)
            ) {
                continue;
            }
            $at = max($now, $one->at ?? $now);
            $air = match (true) {
                $one->set === null => $last->air,
                $one->at === null => [[$at, $one->set]],
                default => self::turned($last->air, $at, $one->set),
            };
            $wrap = match ($one->what) {
                PlannedSteps::WRAP => mb_strtolower($one->with ?? 'foil'),
                PlannedSteps::UNWRAP => null,
                default => $last->wrap,
            };
            $last = new Leg($at, null, $air, $wrap, false, null);
            if ($one->at !== null) {
                $legs[] = $last;
            } else {
                $atCelsius[] = [(float) $one->celsius, $last];
            }
        }

        return new self($legs, $isFromCold, $atCelsius);
    }

    /**
     * Readings of the air before a moment.
     *
     * @param list<array{int, float}> $air
     *
     * @return list<array{int, float}>
     */
    private static function until(array $air, int $at): array
    {
        return array_values(array_filter($air, static fn (array $one): bool => $one[0] < $at));
    }

    /**
     * A lid that was open: the air falls, and comes back once it is closed.
     *
     * @param list<array{int, float}> $air
     *
     * @return list<array{int, float}>
     */
    private static function opened(array $air, int $from, int $to): array
    {
        $air = self::until($air, $from);
        $said = $air[\count($air) - 1][1] ?? null;

        return $said === null || $to <= $from
            ? $air
            : [
                ...$air,
                [$from, $said],
                [min($to, $from + self::LID_FALLS), $said - self::LID_COSTS],
                [$to, $said - self::LID_COSTS],
                [$to + self::LID_BACK, $said],
            ];
    }

    /**
     * @param list<array{int, float}> $air
     *
     * @return list<array{int, float}>
     */
    private static function turned(array $air, int $at, float $set): array
    {
        $before = $air[\count($air) - 1][1] ?? $set;
        $air = self::until($air, $at);

        return [...$air, [$at, $before], [$at + self::SETTLES, $set]];
    }

    private static function celsius(?Temperature $temperature): ?float
    {
        return $temperature === null ? null : $temperature->ninetieths / 90;
    }
}
