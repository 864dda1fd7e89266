<?php

declare(strict_types=1);

namespace Verjuicer\App\Operations\Plan;

use Verjuicer\Core\Plan\Conflict;
use Verjuicer\Core\Plan\ConflictKind;
use Verjuicer\Core\Plan\DishSchedule;
use Verjuicer\Core\Plan\LearnedPace;
use Verjuicer\Core\Plan\PurchaseNeed;
use Verjuicer\Core\Plan\YieldShares;

/** A dish of a plan as it comes out: how much of it, when, and what it breaks. */
final readonly class DishSheet
{
    public PlannedDish $dish;
    public DishFacts $facts;
    public PurchaseNeed $need;
    public int $pieces;
    public YieldShares $shares;
    public LearnedPace $pace;
    /** Null where it was never bought. */
    public ?OnHand $onHand;
    /** g that have to be bought. */
    public int $short;

    /** @param list<Conflict> $conflicts */
    public function __construct(
        DishBasis $basis,
        public Service $service,
        public DishSchedule $schedule,
        public array $conflicts,
    ) {
        $this->dish = $basis->dish;
        $this->facts = $basis->facts;
        $this->need = $basis->need;
        $this->pieces = $basis->pieces;
        $this->shares = $basis->shares;
        $this->pace = $basis->pace;
        $this->onHand = $basis->onHand;
        $this->short = $basis->short;
    }

    /** Whether food of this dish would likely miss a limit of the code as it is planned. */
    public function isUnsafe(): bool
    {
        foreach ($this->conflicts as $conflict) {
            if ($conflict->kind->isUnsafe()) {
                return true;
            }
        }

        return false;
    }

    /** g raw. */
    public function grams(): int
    {
        return $this->pieces * $this->facts->pieceGrams;
    }

    public function isLate(): bool
    {
        foreach ($this->conflicts as $conflict) {
            if ($conflict->kind === ConflictKind::Late) {
                return true;
            }
        }

        return false;
    }

    /** @return array{int, int}|null cents a plate, from where much is left of it to where little is */
    public function centsAPlate(): ?array
    {
        if ($this->onHand?->centsAKg === null) {
            return null;
        }
        $plate = $this->facts->plateGrams * $this->onHand->centsAKg / 1000;
        $served = $this->shares->served();

        return [(int) round($plate / $served->most), (int) round($plate / $served->least)];
    }

    /** @return int g that are likely to be served of it */
    public function likelyServed(): int
    {
        return (int) round($this->grams() * $this->shares->served()->likely());
    }
}
