<?php

declare(strict_types=1);

namespace Verjuicer\Core\Event\Kinds;

use Verjuicer\Core\Event\EndsBatch;
use Verjuicer\Core\Event\EventKind;
use Verjuicer\Core\Event\Saying;
use Verjuicer\Core\Event\Says;
use Verjuicer\Core\Measure\Weight;

/** Served, all of it; what was served of it while the rest goes on is a note. */
#[EventKind(
    'serve',
    sayings: [new Saying('serve', amounts: ['weight_kg', 'portions'])],
    offered: [
        'cold_hold' => 80,
        'freeze' => 80,
        'rest' => 20,
        'hot_hold' => 10,
        'cool' => 30,
        'reheat' => 20,
        'time_control' => 10,
    ],
)]
final readonly class Serve implements EndsBatch
{
    public function __construct(
        #[Says(isOurs: true)] public ?Weight $weightKg = null,
        #[Says(isOurs: true, most: 100_000)] public ?int $portions = null,
        #[Says(isOurs: true)] public bool $all = false,
    ) {
    }
}
