<?php

declare(strict_types=1);

namespace Verjuicer\Core\Event\Kinds;

use Verjuicer\Core\Event\Detail;
use Verjuicer\Core\Event\EventKind;
use Verjuicer\Core\Event\FieldOptions;
use Verjuicer\Core\Event\LinePhrase;
use Verjuicer\Core\Event\QuickAction;

/** Sliced. */
#[EventKind(
    'slice',
    sayings: [new LinePhrase('slice')],
    taps: [new QuickAction(['rest', 'hot_hold'], 30)],
    isMarked: true,
)]
final readonly class Slice implements Detail
{
    public function __construct(#[FieldOptions(isOurs: true, most: 500)] public ?int $piece = null)
    {
    }
}
