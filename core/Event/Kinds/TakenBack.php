<?php

declare(strict_types=1);

namespace Verjuicer\Core\Event\Kinds;

use Verjuicer\Core\Event\Detail;
use Verjuicer\Core\Event\EventKind;

/** Takes an earlier entry back; which one, and why, is the event's own. */
#[EventKind('void')]
final readonly class TakenBack implements Detail
{
}
