<?php

declare(strict_types=1);

namespace Verjuicer\Core\Assess\Zone;

use Verjuicer\Core\Assess\Evidence\Timeline;
use Verjuicer\Core\Event\Kinds\ColdHold;
use Verjuicer\Core\Event\Kinds\Cook;
use Verjuicer\Core\Event\Kinds\Cool;
use Verjuicer\Core\Event\Kinds\Freeze;
use Verjuicer\Core\Event\Kinds\HotHold;
use Verjuicer\Core\Event\Kinds\Received;
use Verjuicer\Core\Event\Kinds\Reheat;
use Verjuicer\Core\Event\Kinds\Rest;
use Verjuicer\Core\Event\Kinds\Thaw;

/** Which stages touch a span of time: those that last a while within it, or begin at its very first second. */
final readonly class StageTouch
{
    private const COLD = [Received::class, ColdHold::class, Freeze::class, Thaw::class];
    /** The name under which the time before the first stage is shared out. */
    public const UNSTAGED = 'unstaged';
    private const KEEPING = [...self::COLD, Cool::class];
    private const HOT = [Cook::class, Rest::class, HotHold::class, Reheat::class];

    public function __construct(private Timeline $timeline)
    {
    }

    /** The stage that alone touches the span: it began before it and ends no earlier. Null where there is none. */
    public function alone(int $from, int $to): ?IsolatedStage
    {
        $stage = $this->timeline->stages[$this->firstFrom($from) - 1] ?? null;

        return $stage === null || $stage->from->epoch >= $from || $stage->to->epoch < $to
            ? null
            : new IsolatedStage(
                $stage->from->epoch,
                $stage->to->epoch,
                $stage->is(...self::KEEPING),
                $stage->is(...self::HOT),
            );
    }

    /** Seconds: when the first stage began that is neither in the cold nor the end. */
    public function firstWarm(): ?int
    {
        foreach ($this->timeline->stages as $stage) {
            if (!$stage->is(...self::COLD) && !$stage->isEnd()) {
                return $stage->from->epoch;
            }
        }

        return null;
    }

    /** Whether the first stage that touches the span keeps food cold or makes it so. */
    public function isKeptAtFirst(int $from, int $to): bool
    {
        $first = $this->firstTouching($from, $to);

        return $first !== null && $this->timeline->stages[$first]->is(...self::KEEPING);
    }

    /** Seconds: the first stage event within the span that does neither; its end where there is none. */
    public function keptUntil(int $from, int $to): int
    {
        for ($index = $this->firstFrom($from); isset($this->timeline->stages[$index]); ++$index) {
            $stage = $this->timeline->stages[$index];
            if ($stage->from->epoch > $to) {
                break;
            }
            if (!$stage->is(...self::KEEPING)) {
                return $stage->from->epoch;
            }
        }

        return $to;
    }

    public function isOnlyKept(int $from, int $to): bool
    {
        return $this->areAll($from, $to, self::KEEPING);
    }

    public function isOnlyHot(int $from, int $to): bool
    {
        return $this->areAll($from, $to, self::HOT);
    }

    /**
     * Adds nanoseconds to the stages they fall in. Time before the first stage has a name of its own, so that the parts
     * add up; the last stage has all later time.
     *
     * @param array<string, int> $byStage
     */
    public function share(int $from, int $to, array &$byStage): void
    {
        $stages = $this->timeline->stages;
        $first = isset($stages[0]) ? ExposureLine::SECOND * $stages[0]->from->epoch : \PHP_INT_MAX;
        if ($from < min($to, $first)) {
            $byStage[self::UNSTAGED] = ($byStage[self::UNSTAGED] ?? 0) + min($to, $first) - $from;
        }
        $before = $this->firstFrom(intdiv($from, ExposureLine::SECOND)) - 1;
        for ($index = max(0, $before); isset($stages[$index]); ++$index) {
            $stage = $stages[$index];
            $start = max($from, ExposureLine::SECOND * $stage->from->epoch);
            $end = isset($stages[$index + 1]) ? min($to, ExposureLine::SECOND * $stage->to->epoch) : $to;
            if ($end > $start) {
                $byStage[$stage->name()] = ($byStage[$stage->name()] ?? 0) + $end - $start;
            }
            if ($stage->from->epoch * ExposureLine::SECOND >= $to) {
                break;
            }
        }
    }

    /** @param list<class-string<\Verjuicer\Core\Event\Detail>> $kinds */
    private function areAll(int $from, int $to, array $kinds): bool
    {
        for (
            $index = $this->firstTouching($from, $to);
            $index !== null;
            $index = $this->nextTouching($index + 1, $from, $to)
        ) {
            if (!$this->timeline->stages[$index]->is(...$kinds)) {
                return false;
            }
        }

        return true;
    }

    private function firstTouching(int $from, int $to): ?int
    {
        return $this->nextTouching(max(0, $this->firstFrom($from) - 1), $from, $to);
    }

    /** The place of the first stage from this one on that touches the span; null where none does. */
    private function nextTouching(int $index, int $from, int $to): ?int
    {
        for (; isset($this->timeline->stages[$index]); ++$index) {
            $stage = $this->timeline->stages[$index];
            $begins = $stage->from->epoch;
            if ($begins > $from && $begins >= $to) {
                return null;
            }
            if ($begins === $from || min($to, $stage->to->epoch) > max($from, $begins)) {
                return $index;
            }
        }

        return null;
    }

    /** The first stage that begins at this second or later. */
    private function firstFrom(int $at): int
    {
        $low = 0;
        $high = \count($this->timeline->stages);
        while ($low < $high) {
            $middle = ($low + $high) >> 1;
            if ($this->timeline->stages[$middle]->from->epoch < $at) {
                $low = $middle + 1;
            } else {
                $high = $middle;
            }
        }

        return $low;
    }
}
