<?php

declare(strict_types=1);

namespace Verjuicer\Core\Event\Kinds;

use Verjuicer\Core\Event\BeginsStage;
use Verjuicer\Core\Event\EventKind;
use Verjuicer\Core\Event\LinePhrase;

/** Out of the cold, to be trimmed, seasoned, injected, tempered. */
#[EventKind(
    'prep',
    sayings: [new LinePhrase('prep')],
    offered: ['' => 20, 'received' => 20, 'thaw' => 20, 'cold_hold' => 10, 'freeze' => 10],
)]
final readonly class Prep implements BeginsStage
{
}
