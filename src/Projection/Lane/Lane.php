<?php

declare(strict_types=1);

namespace Verjuicer\App\Projection\Lane;

use Verjuicer\Core\Assess\Finding\Verdict;
use Verjuicer\Core\Assess\Reminder;
use Verjuicer\Core\Forecast\Window;
use Verjuicer\Core\Measure\Instant;
use Verjuicer\Core\Measure\Temperature;
use Verjuicer\Core\Measure\Threshold;

/** The board's row of one batch: a projection of its assessment. The version changes with any of it. */
final readonly class Lane
{
    /**
     * @param list<LaneDeviation> $wrongs rules that are broken or not shown, the worst and unsettled first
     * @param list<LaneStage> $stages the last is open
     * @param list<LanePoint> $line readings of the track that was read most
     * @param list<LaneDue> $dues soonest first
     * @param string|null $pit it is on the heat in
     * @param string|null $place of a hot hold
     * @param Window|null $outlook when it is likely to be done as the kitchen likes it
     * @param list<LaneLimitForecast> $lateGates forecasts
     * @param Instant|null $hotUntil from when on a rest may be under the hot limit: a forecast
     * @param Threshold $hot the hot limit
     * @param Threshold $cold the cold limit
     * @param list<LanePoint> $left spots of the cook that were read and left
     * @param list<int>|null $numbers the pieces it holds, where they are not all it began with
     * @param string|null $parentId the batch it was split off
     * @param list<Reminder> $reminders that still wait
     * @param int|null $portionGrams of a part of the mass
     * @param string|null $container it is in
     * @param bool $isMass whether it was pulled or chopped: then a pan is read, not its pieces
     * @param bool $hasLeftover whether brine or spritz that touched raw meat is left over
     * @param bool $isLastInDoubt whether the thermometer of the last reading failed a check
     * @param bool $isShortOfCode whether it is on the heat, and the code requirement is not met yet
     * @param bool $hasOwnWay whether it is pieces that went their own way, not a part of the mass
     */
    public function __construct(
        public string $batchId,
        public int $version,
        public ?Instant $endedAt,
        public int $tag,
        public string $product,
        public int $pieces,
        public Verdict $verdict,
        public array $wrongs,
        public array $stages,
        public array $line,
        public ?LanePoint $last,
        public array $dues,
        public ?string $pit,
        public ?string $place,
        public ?Instant $readyBy,
        public ?Window $outlook,
        public ?Temperature $target,
        public array $lateGates,
        public ?Instant $hotUntil,
        public Threshold $hot,
        public Threshold $cold,
        public array $left,
        public ?array $numbers,
        public ?string $parentId,
        public bool $hasOwnWay,
        public array $reminders,
        public ?int $portionGrams,
        public ?string $container,
        public bool $hasLeftover,
        public bool $isMass,
        public bool $isLastInDoubt,
        public bool $isShortOfCode,
    ) {
    }

    public function hasEnded(): bool
    {
        return $this->endedAt !== null;
    }

    /** The kind of the stage the batch is in, or was in last; empty before its first. */
    public function stage(): string
    {
        return $this->stages === [] ? '' : $this->stages[\count($this->stages) - 1]->name;
    }

    /** @return list<int> the pieces it holds */
    public function held(): array
    {
        return $this->numbers ?? range(1, max(1, $this->pieces));
    }

    /** @return list<LaneDeviation> deviations without a corrective action, the worst first */
    public function actions(): array
    {
        return array_values(array_filter($this->wrongs, static fn (LaneDeviation $wrong): bool => $wrong->isOpen));
    }
}
