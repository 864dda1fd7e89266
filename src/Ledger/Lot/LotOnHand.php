<?php

declare(strict_types=1);

namespace Verjuicer\App\Ledger\Lot;

use Verjuicer\App\Ledger\Log\SiteEvent;
use Verjuicer\Core\Event\Kinds\Received;
use Verjuicer\Core\Measure\Instant;
use Verjuicer\Core\Measure\LocalDate;

/** A lot with its remaining amount and place. */
final readonly class LotOnHand
{
    /** The arrival, put right. */
    public const CORRECTED = 'received';

    /** @param list<SiteEvent> $history by time */
    public function __construct(
        public Lot $lot,
        public int $piecesLeft,
        public int $gramsLeft,
        public array $history,
    ) {
    }

    /** How it came in, as far as it is known by now: as it was written down, or put right since. */
    public function arrival(): Received
    {
        $right = $this->putRight();

        return $right === null
            ? new Received(
                $this->lot->temperature(),
                $this->lot->isFrozen,
                $this->lot->supplier->name,
                $this->lot->number,
                $this->lot->thermometer,
            )
            : new Received(
                $right->temperature('temp'),
                $right->members['frozen'] === true,
                $this->lot->supplier->name,
                $this->lot->number,
                $right->text('thermometer'),
            );
    }

    /** When it came in. */
    public function at(): Instant
    {
        return $this->putRight()->at ?? $this->lot->at();
    }

    private function putRight(): ?SiteEvent
    {
        $right = null;
        foreach ($this->history as $event) {
            if (
                $event->type === self::CORRECTED
                && ($right === null || !$right->recordedAt->isAfter($event->recordedAt))
            ) {
                $right = $event;
            }
        }

        return $right;
    }

    /**
     * The supplier's use-by date while it counts: not of refused food, and not a frozen date once the food is thawed or
     * kept cold.
     */
    public function useBy(): ?LocalDate
    {
        return $this->lot->useBy === null || !$this->lot->isAccepted || $this->isThawed()
            ? null
            : LocalDate::ofIso($this->lot->useBy->format('Y-m-d'));
    }

    /** Whether it was frozen and is no longer: it thaws in the walk-in whether or not that is recorded as thawing. */
    public function isThawed(): bool
    {
        $isFrozen = $wasFrozen = $this->arrival()->frozen === true;
        foreach ($this->moves() as $move) {
            $isFrozen = $move->type === 'freeze';
            $wasFrozen = $wasFrozen || $isFrozen;
        }

        return $wasFrozen && !$isFrozen;
    }

    public function hasAnyLeft(): bool
    {
        return $this->lot->isAccepted && $this->piecesLeft > 0;
    }

    /** @return array{pieces: int, grams: int} discards before it went into a batch */
    public function discarded(): array
    {
        $sum = ['pieces' => 0, 'grams' => 0];
        foreach ($this->history as $event) {
            if ($event->type === 'discard') {
                $sum['pieces'] += $event->whole('pieces');
                $sum['grams'] += $event->whole('grams');
            }
        }

        return $sum;
    }

    /** Where it is now, and how: the last move. */
    public function whereabouts(): ?SiteEvent
    {
        $moves = $this->moves();

        return $moves === [] ? null : $moves[\count($moves) - 1];
    }

    /** @return list<SiteEvent> where it went since it came in, by time */
    private function moves(): array
    {
        return array_values(array_filter(
            $this->history,
            static fn (SiteEvent $one): bool => \in_array($one->type, ['cold_hold', 'freeze', 'thaw'], true),
        ));
    }
}
