<?php

declare(strict_types=1);

namespace Verjuicer\App\Projection\Lane;

use Verjuicer\Core\Assess\Finding\CountdownKind;
use Verjuicer\Core\Assess\Finding\Verdict;
use Verjuicer\Core\Forecast\Window;
use Verjuicer\Core\Measure\Instant;
use Verjuicer\Core\Measure\Temperature;
use Verjuicer\Core\Record\EventType;

/** What the board shows of one batch: a projection of its assessment. The version changes whenever anything of it does. */
final readonly class Lane
{
    /**
     * @param list<array{EventType, Instant, Instant|null}>            $stages    with their ends; the last is open
     * @param list<array{Instant, Temperature}>                        $line      readings of the track that was read most
     * @param list<array{string, CountdownKind, string|null, Instant}> $dues      rule, kind, track, deadline; soonest first
     * @param list<array{string, Verdict}>                             $wrongs    rules that are broken or not shown
     * @param list<array{string, Verdict}>                             $actions   rules that ask for a corrective action nobody has taken yet
     * @param list<array{string, bool, Instant}>                       $lateGates rule, whether it is sure to be late, and when the gate shuts: forecasts
     * @param Instant|null                                             $hotUntil  from when on a rest may be under the hot limit: a forecast
     * @param string|null                                              $place     of a hot hold
     * @param Window|null                                              $outlook   when it is likely to be done as the kitchen likes it
     */
    public function __construct(
        public string $batchId,
        public int $version,
        public bool $hasEnded,
        public int $tag,
        public string $product,
        public int $pieces,
        public string $ruleSet,
        public Verdict $verdict,
        public array $wrongs,
        public array $stages,
        public array $line,
        public ?Temperature $last,
        public ?string $lastTrack,
        public ?Instant $lastAt,
        public array $dues,
        public ?string $pit,
        public ?Instant $readyBy,
        public ?Window $outlook,
        public ?Temperature $target,
        public array $actions,
        public array $lateGates,
        public ?string $place,
        public ?Instant $hotUntil,
    ) {
    }

    /** The kind of the stage the batch is in, or was in last; none before its first. */
    public function stage(): ?EventType
    {
        return $this->stages === [] ? null : $this->stages[\count($this->stages) - 1][0];
    }
}
