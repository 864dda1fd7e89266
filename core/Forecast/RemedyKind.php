<?php

declare(strict_types=1);

namespace Verjuicer\Core\Forecast;

use Verjuicer\Core\Food\Holding;
use Verjuicer\Core\Forecast\Belief\Leg;

/** Remedies for a cooling: another place or a thinner layer from now on, or reheating once. */
enum RemedyKind: string
{
    case ShallowPans = 'shallow_pans';
    case IceBath = 'ice_bath';
    case BlastChiller = 'blast_chiller';
    case BackOnHeat = 'back_on_heat';

    /** Two inches, as the code's examples of shallow pans have it. */
    public const THIN = 0.0508; // m

    /** @return Holding|null where it cools on from now; null where it goes through the heat first */
    public function place(): ?Holding
    {
        return match ($this) {
            self::ShallowPans => Holding::ShallowPans,
            self::IceBath => Holding::IceBath,
            self::BlastChiller => Holding::BlastChiller,
            self::BackOnHeat => null,
        };
    }

    /**
     * @param float|null $depth m it lies at now; null for a piece
     * @param float|null $set °C of the pit it goes back to, if set
     */
    public function leg(int $now, ?float $depth, ?float $set): Leg
    {
        return $this->place() === null
            ? new Leg($now, null, $set === null ? [] : [[$now, $set]], null, false, null)
            : new Leg($now, $this->place(), [], null, false, min($depth ?? self::THIN, self::THIN));
    }
}
