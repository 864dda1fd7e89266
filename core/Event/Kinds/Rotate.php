<?php

declare(strict_types=1);

namespace Verjuicer\Core\Event\Kinds;

use Verjuicer\Core\Event\Detail;
use Verjuicer\Core\Event\EventKind;
use Verjuicer\Core\Event\Saying;
use Verjuicer\Core\Event\Says;
use Verjuicer\Core\Event\Tap;

/** Turned, or moved to another place in the pit. */
#[EventKind('rotate', sayings: [new Saying('rotate')], taps: [new Tap(['cook'], 60)], isMarked: true)]
final readonly class Rotate implements Detail
{
    public function __construct(#[Says(isOurs: true, most: 500)] public ?int $piece = null)
    {
    }
}
