<?php

declare(strict_types=1);

namespace Verjuicer\Core\Event\Kinds;

use Verjuicer\Core\Event\Detail;
use Verjuicer\Core\Event\EventKind;
use Verjuicer\Core\Event\Saying;
use Verjuicer\Core\Event\Says;
use Verjuicer\Core\Event\Tap;

/** Out of its wrapping. */
#[EventKind('unwrap', sayings: [new Saying('unwrap')], taps: [new Tap(['cook', 'rest'], 45)], isMarked: true)]
final readonly class Unwrap implements Detail
{
    public function __construct(#[Says(isOurs: true, most: 500)] public ?int $piece = null)
    {
    }
}
