<?php

declare(strict_types=1);

namespace Verjuicer\Core\Event\Kinds;

use Verjuicer\Core\Event\Detail;
use Verjuicer\Core\Event\EventKind;
use Verjuicer\Core\Event\FieldOptions;
use Verjuicer\Core\Event\LinePhrase;
use Verjuicer\Core\Event\QuickAction;

/** Out of its wrapping. */
#[EventKind(
    'unwrap',
    sayings: [new LinePhrase('unwrap')],
    taps: [new QuickAction(['cook', 'rest'], 45)],
    isMarked: true,
)]
final readonly class Unwrap implements Detail
{
    public function __construct(#[FieldOptions(isOurs: true, most: 500)] public ?int $piece = null)
    {
    }
}
