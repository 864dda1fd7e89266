<?php

declare(strict_types=1);

namespace Verjuicer\Core\Assess\Evidence;

use Verjuicer\Core\Event\CarriesSurfaceInside;
use Verjuicer\Core\Event\Detail;
use Verjuicer\Core\Event\Kinds;
use Verjuicer\Core\Measure\Instant;
use Verjuicer\Core\Record\RecordedProduct;
use Verjuicer\Core\Record\RecordedSite;
use Verjuicer\Core\Ruleset\CitedThreshold;
use Verjuicer\Core\Ruleset\Limits;
use Verjuicer\Core\Ruleset\RulePart;
use Verjuicer\Core\Ruleset\RuleSet;

/** The input of the checks: one batch at one moment with its trusted readings, and values that several checks share. */
final class CaseFile
{
    public readonly Limits $limits;

    /** @var array<string, Trace> by track */
    public readonly array $tracks;

    public readonly Instant $asOf;

    /** @var array<string, Trace> by the places it lies between */
    private array $parts = [];

    /** @var list<CookOutcome>|null */
    private ?array $cooks = null;

    /** @var list<OffHeatPeriod>|null */
    private ?array $blocks = null;

    /** @var array<int, string>|null */
    private ?array $probeMoves = null;

    private ?int $firstPiercing = null;

    /** @param Trace $readings all counted ones, or those that are not suspect */
    public function __construct(
        public readonly RecordedSite $site,
        public readonly RecordedProduct $product,
        public readonly RuleSet $rules,
        public readonly Timeline $timeline,
        public readonly Trace $readings,
    ) {
        $this->limits = $rules->limits();
        $this->tracks = $this->readings->byTrack();
        $this->asOf = $timeline->asOf;
    }

    /**
     * The numbers of one subject of the rule set.
     *
     * @template T of RulePart
     *
     * @param class-string<T> $part
     *
     * @return T
     */
    public function rule(string $part): RulePart
    {
        return $this->rules->get($part);
    }

    /**
     * @param class-string<Detail> ...$kinds
     *
     * @return list<Stage>
     */
    public function stagesOf(string ...$kinds): array
    {
        return array_values(
            array_filter($this->timeline->stages, static fn (Stage $stage): bool => $stage->is(...$kinds)),
        );
    }

    public function readingsIn(Stage|OffHeatPeriod $part): Trace
    {
        return $this->parts[$part->order.'-'.$part->endOrder] ??= $this->readings->between(
            $part->order,
            $part->endOrder,
        );
    }

    /** @return list<CookOutcome> in order; none where the product has no cooking rule */
    public function cooks(): array
    {
        if ($this->cooks === null) {
            $this->cooks = [];
            foreach (CookWindow::allOf($this) as $window) {
                $this->cooks[] = CookOutcome::of($this, $window);
            }
        }

        return $this->cooks;
    }

    /**
     * The stretches off the heat: out of rest, prep, cooling and cold, directly after a cook, a hot hold or a reheat.
     *
     * @return list<OffHeatPeriod>
     */
    public function blocksOffTheHeat(): array
    {
        if ($this->blocks === null) {
            $this->blocks = [];
            $off = [
                Kinds\Rest::class,
                Kinds\Prep::class,
                Kinds\Cool::class,
                Kinds\ColdHold::class,
                Kinds\Freeze::class,
            ];
            foreach ($this->timeline->runsOf(...$off) as $run) {
                $before = $this->timeline->stages[$run[0]->index - 1] ?? null;
                if ($before?->is(Kinds\Cook::class, Kinds\HotHold::class, Kinds\Reheat::class) === true) {
                    $this->blocks[] = new OffHeatPeriod($run);
                }
            }
        }

        return $this->blocks;
    }

    /**
     * The hot limit at this place: that of a roast where the roast rows under oven conditions are met and nothing was
     * pushed inside.
     */
    public function hotLimitAt(int $order): CitedThreshold
    {
        $last = null;
        foreach ($this->cooks() as $cook) {
            if ($cook->window->stretch->order >= $order) {
                break;
            }
            $last = $cook;
        }

        return $last?->earnsRoastLimit() === true && !$this->isPierced() ? $this->limits->hotRoast : $this->limits->hot;
    }

    /** @return array<int, string> the track each probe move left, by the place of the move */
    public function probeMoves(): array
    {
        if ($this->probeMoves === null) {
            $this->probeMoves = [];
            foreach ($this->timeline->happenings as $order => $event) {
                if ($event->detail instanceof Kinds\ProbeMoved) {
                    $this->probeMoves[$order] = $event->detail->piece.'/'.$event->detail->spot;
                }
            }
        }

        return $this->probeMoves;
    }

    /** Whether anything was injected or tenderized anywhere in the record. */
    public function isPierced(): bool
    {
        return $this->isPiercedBefore(\PHP_INT_MAX);
    }

    public function isPiercedBefore(int $order): bool
    {
        if ($this->firstPiercing === null) {
            $this->firstPiercing = \PHP_INT_MAX;
            foreach ($this->timeline->happenings as $place => $event) {
                if ($event->detail instanceof CarriesSurfaceInside) {
                    $this->firstPiercing = $place;
                    break;
                }
            }
        }

        return $this->firstPiercing < $order;
    }
}
