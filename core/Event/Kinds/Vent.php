<?php

declare(strict_types=1);

namespace Verjuicer\Core\Event\Kinds;

use Verjuicer\Core\Event\Detail;
use Verjuicer\Core\Event\EventKind;
use Verjuicer\Core\Event\Saying;
use Verjuicer\Core\Event\Says;
use Verjuicer\Core\Event\Tap;

/** The wrapping opened for a while, so that it stops cooking. */
#[EventKind(
    'vent',
    sayings: [new Saying('vent')],
    taps: [new Tap(['rest'], 20), new Tap(['rest'], 25, ['over' => '1'])],
    isMarked: true,
)]
final readonly class Vent implements Detail
{
    public function __construct(
        #[Says(isOurs: true, most: 500)] public ?int $piece = null,
        #[Says(isOurs: true)] public bool $over = false,
    ) {
    }
}
