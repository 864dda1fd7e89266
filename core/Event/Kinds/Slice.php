<?php

declare(strict_types=1);

namespace Verjuicer\Core\Event\Kinds;

use Verjuicer\Core\Event\Detail;
use Verjuicer\Core\Event\EventKind;
use Verjuicer\Core\Event\Saying;
use Verjuicer\Core\Event\Says;
use Verjuicer\Core\Event\Tap;

/** Sliced. */
#[EventKind('slice', sayings: [new Saying('slice')], taps: [new Tap(['rest', 'hot_hold'], 30)], isMarked: true)]
final readonly class Slice implements Detail
{
    public function __construct(#[Says(isOurs: true, most: 500)] public ?int $piece = null)
    {
    }
}
