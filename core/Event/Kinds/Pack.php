<?php

declare(strict_types=1);

namespace Verjuicer\Core\Event\Kinds;

use Verjuicer\Core\Event\Detail;
use Verjuicer\Core\Event\EventKind;
use Verjuicer\Core\Event\FieldOptions;
use Verjuicer\Core\Event\LinePhrase;

/** Packed, by some method. */
#[EventKind(
    'pack',
    sayings: [new LinePhrase('pack', words: 'method')],
    offered: ['cold_hold' => 70, 'freeze' => 70],
    partsWays: true,
)]
final readonly class Pack implements Detail
{
    public function __construct(
        #[FieldOptions(usual: ['vacuum'])] public ?string $method = null,
        #[FieldOptions(isOurs: true)] public ?string $planName = null,
    ) {
    }
}
