<?php

declare(strict_types=1);

namespace Verjuicer\Core\Event\Kinds;

use Verjuicer\Core\Event\CarriesSurfaceInside;
use Verjuicer\Core\Event\EventKind;
use Verjuicer\Core\Event\Input;
use Verjuicer\Core\Event\Saying;
use Verjuicer\Core\Event\Says;
use Verjuicer\Core\Event\Tap;

/** Blades, studding, slitting or stuffing carried the surface inside. */
#[EventKind(
    'tenderize',
    sayings: [new Saying('blade')],
    taps: [
        new Tap(['', 'received', 'cold_hold', 'thaw', 'prep'], 20),
        new Tap(['', 'received', 'cold_hold', 'thaw', 'prep'], 30, ['stuffed' => '1']),
    ],
    isMarked: true,
)]
final readonly class Tenderize implements CarriesSurfaceInside
{
    public function __construct(
        #[Says(isOurs: true, input: Input::Carried)] public bool $stuffed = false,
        #[Says(isOurs: true, most: 500)] public ?int $piece = null,
    ) {
    }
}
