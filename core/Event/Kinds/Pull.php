<?php

declare(strict_types=1);

namespace Verjuicer\Core\Event\Kinds;

use Verjuicer\Core\Event\Detail;
use Verjuicer\Core\Event\EventKind;
use Verjuicer\Core\Event\LinePhrase;
use Verjuicer\Core\Event\QuickAction;

/** Pulled or chopped: from here it is one mass. */
#[EventKind(
    'pull',
    sayings: [new LinePhrase('pull')],
    taps: [new QuickAction(['rest', 'hot_hold'], 40)],
    isMarked: true,
    partsWays: true,
)]
final readonly class Pull implements Detail
{
}
