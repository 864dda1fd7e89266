<?php

declare(strict_types=1);

namespace Verjuicer\Core\Event\Kinds;

use Verjuicer\Core\Event\Detail;
use Verjuicer\Core\Event\EventKind;
use Verjuicer\Core\Event\LinePhrase;
use Verjuicer\Core\Event\QuickAction;

/** A bought package was opened: its days count from here. */
#[EventKind(
    'opened',
    sayings: [new LinePhrase('open')],
    taps: [new QuickAction(['', 'received', 'cold_hold'], 60)],
    isMarked: true,
)]
final readonly class Opened implements Detail
{
}
