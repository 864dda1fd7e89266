<?php

declare(strict_types=1);

namespace Verjuicer\Core\Event\Kinds;

use Verjuicer\Core\Event\EndsBatch;
use Verjuicer\Core\Event\EventKind;
use Verjuicer\Core\Event\FieldOptions;
use Verjuicer\Core\Event\LinePhrase;
use Verjuicer\Core\Measure\Weight;

/** All of it was served. A partial serving is a note. */
#[EventKind(
    'serve',
    sayings: [new LinePhrase('serve', amounts: ['weight_kg', 'portions'])],
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
        #[FieldOptions(isOurs: true)] public ?Weight $weightKg = null,
        #[FieldOptions(isOurs: true, most: 100_000)] public ?int $portions = null,
        #[FieldOptions(isOurs: true)] public bool $all = false,
    ) {
    }
}
