<?php

declare(strict_types=1);

namespace Verjuicer\Core\Event\Kinds;

use Verjuicer\Core\Event\CarriesSurfaceInside;
use Verjuicer\Core\Event\EventKind;
use Verjuicer\Core\Event\FieldInput;
use Verjuicer\Core\Event\FieldOptions;
use Verjuicer\Core\Event\LinePhrase;
use Verjuicer\Core\Event\QuickAction;

/** Blades, studding, slitting or stuffing carried the surface inside. */
#[EventKind(
    'tenderize',
    sayings: [new LinePhrase('blade')],
    taps: [
        new QuickAction(['', 'received', 'cold_hold', 'thaw', 'prep'], 20),
        new QuickAction(['', 'received', 'cold_hold', 'thaw', 'prep'], 30, ['stuffed' => '1']),
    ],
    isMarked: true,
)]
final readonly class Tenderize implements CarriesSurfaceInside
{
    public function __construct(
        #[FieldOptions(isOurs: true, input: FieldInput::Carried)] public bool $stuffed = false,
        #[FieldOptions(isOurs: true, most: 500)] public ?int $piece = null,
    ) {
    }
}
