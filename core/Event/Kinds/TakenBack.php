<?php

declare(strict_types=1);

namespace Verjuicer\Core\Event\Kinds;

use Verjuicer\Core\Event\Detail;
use Verjuicer\Core\Event\EventKind;
use Verjuicer\Core\Event\Input;
use Verjuicer\Core\Event\Says;

/** Takes an earlier entry back; which one, and why, is the event's own. */
#[EventKind('void')]
final readonly class TakenBack implements Detail
{
    /** @param string|null $range of several taken back for one reason: what they have in common */
    public function __construct(#[Says(isOurs: true, input: Input::Carried)] public ?string $range = null)
    {
    }
}
