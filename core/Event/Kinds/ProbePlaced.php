<?php

declare(strict_types=1);

namespace Verjuicer\Core\Event\Kinds;

use Verjuicer\Core\Event\Detail;
use Verjuicer\Core\Event\EventKind;
use Verjuicer\Core\Event\Saying;
use Verjuicer\Core\Event\Says;
use Verjuicer\Core\Event\Tap;

/** A probe went in. */
#[EventKind(
    'probe_placed',
    sayings: [new Saying('placed', words: 'spot')],
    taps: [new Tap(['cook'], 80)],
    isMarked: true,
)]
final readonly class ProbePlaced implements Detail
{
    public function __construct(#[Says(most: 500)] public int $piece = 1, public string $spot = 'core')
    {
    }
}
