<?php

declare(strict_types=1);

namespace Verjuicer\App\Operations\Board;

use Verjuicer\App\Operations\Due\DueLine;
use Verjuicer\App\Operations\Due\DueLines;
use Verjuicer\App\Operations\Probe\SensorTrouble;
use Verjuicer\App\Platform\Picture\TimeAxis;
use Verjuicer\App\Projection\Lane\Lane;
use Verjuicer\App\Projection\Lane\UnreadableLane;
use Verjuicer\App\Site\Site\Site;
use Verjuicer\Core\Measure\Instant;

/** What the board shows. */
final readonly class BoardView
{
    /**
     * @param list<Lane> $lanes open batches, by tag
     * @param list<array{lane: Lane|null, portions: list<Lane>}> $groups the same as they are stacked
     * @param array<string, LanePicture> $pictures by batch id
     * @param list<UnreadableLane> $unreadable
     * @param list<array{x: float, label: string}> $hours
     * @param list<DueLine> $lines what is due, late first
     * @param int $moreUnsettled ended batches that still ask for an action and are not among the lines
     * @param array<string, string> $claims initials, by batch id and rule
     * @param list<Lane> $ended
     * @param array{at: array<string, int>, by: array<string, int>} $choices to filter by
     * @param list<SensorTrouble> $troubles with sensors
     */
    public function __construct(
        public Instant $now,
        public Site $site,
        public array $lanes,
        public array $groups,
        public array $pictures,
        public array $unreadable,
        public TimeAxis $axis,
        public array $hours,
        public array $lines,
        public int $moreUnsettled,
        public array $claims,
        public array $ended,
        public bool $hasMoreEnded,
        public BoardFilter $filter,
        public array $choices,
        public array $troubles,
    ) {
    }

    /** @return array<string, LanePicture> one of each ground that lanes are drawn on */
    public function grounds(): array
    {
        $grounds = [];
        foreach ($this->pictures as $picture) {
            $grounds[$picture->ground()] = $picture;
        }

        return $grounds;
    }

    /** @return list<DueLine> what is in sight */
    public function shownLines(): array
    {
        return \array_slice($this->lines, 0, DueLines::shown($this->lines));
    }

    /** @return list<DueLine> what is folded under "later" */
    public function laterLines(): array
    {
        return \array_slice($this->lines, DueLines::shown($this->lines));
    }

    /** When the next thing comes, where nothing is late or to be settled now. */
    public function nextAt(): ?Instant
    {
        $first = $this->lines[0]->due ?? null;

        return $first === null || $first->isLate ? null : $first->deadline;
    }
}
