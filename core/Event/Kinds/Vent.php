<?php

declare(strict_types=1);

namespace Verjuicer\Core\Event\Kinds;

use Verjuicer\Core\Event\Detail;
use Verjuicer\Core\Event\EventKind;
use Verjuicer\Core\Event\FieldOptions;
use Verjuicer\Core\Event\LinePhrase;
use Verjuicer\Core\Event\QuickAction;

/** The wrapping opened for a while, so that it stops cooking. */
#[EventKind(
    'vent',
    sayings: [new LinePhrase('vent')],
    taps: [new QuickAction(['rest'], 20), new QuickAction(['rest'], 25, ['over' => '1'])],
    isMarked: true,
)]
final readonly class Vent implements Detail
{
    public function __construct(
        #[FieldOptions(isOurs: true, most: 500)] public ?int $piece = null,
        #[FieldOptions(isOurs: true)] public bool $over = false,
    ) {
    }
}
