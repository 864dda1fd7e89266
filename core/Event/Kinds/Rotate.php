<?php

declare(strict_types=1);

namespace Verjuicer\Core\Event\Kinds;

use Verjuicer\Core\Event\Detail;
use Verjuicer\Core\Event\EventKind;
use Verjuicer\Core\Event\FieldOptions;
use Verjuicer\Core\Event\LinePhrase;
use Verjuicer\Core\Event\QuickAction;

/** Turned, or moved to another place in the pit. */
#[EventKind('rotate', sayings: [new LinePhrase('rotate')], taps: [new QuickAction(['cook'], 60)], isMarked: true)]
final readonly class Rotate implements Detail
{
    public function __construct(#[FieldOptions(isOurs: true, most: 500)] public ?int $piece = null)
    {
    }
}
