<?php

declare(strict_types=1);

namespace Verjuicer\Core\Event\Kinds;

use Verjuicer\Core\Event\Detail;
use Verjuicer\Core\Event\EventKind;
use Verjuicer\Core\Event\Saying;
use Verjuicer\Core\Event\Says;

/** Packed, by some method. */
#[EventKind(
    'pack',
    sayings: [new Saying('pack', words: 'method')],
    offered: ['cold_hold' => 70, 'freeze' => 70],
    partsWays: true,
)]
final readonly class Pack implements Detail
{
    public function __construct(
        #[Says(usual: ['vacuum'])] public ?string $method = null,
        #[Says(isOurs: true)] public ?string $planName = null,
    ) {
    }
}
