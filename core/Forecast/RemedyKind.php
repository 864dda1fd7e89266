<?php

declare(strict_types=1);

namespace Verjuicer\Core\Forecast;

use Verjuicer\Core\Food\Holding;
use Verjuicer\Core\Forecast\Belief\Leg;

/** What may still be done for a cooling: from now on in another place or thinner. */
enum RemedyKind: string
{
    case ShallowPans = 'shallow_pans';
    case IceBath = 'ice_bath';
    case BlastChiller = 'blast_chiller';

    /** Two inches, as the code's examples of shallow pans have it. */
    private const THIN = 0.05; // m

    /** @param float|null $depth m it lies at now; null for a piece */
    public function leg(int $now, ?float $depth): Leg
    {
        return new Leg(
            $now,
            match ($this) {
                self::ShallowPans => Holding::ShallowPans,
                self::IceBath => Holding::IceBath,
                self::BlastChiller => Holding::BlastChiller,
            },
            [],
            null,
            false,
            min($depth ?? self::THIN, self::THIN),
        );
    }
}
