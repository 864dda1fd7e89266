<?php

declare(strict_types=1);

namespace Verjuicer\Core\Event\Kinds;

use Verjuicer\Core\Event\Detail;
use Verjuicer\Core\Event\EventKind;
use Verjuicer\Core\Event\Saying;
use Verjuicer\Core\Event\Says;
use Verjuicer\Core\Measure\Weight;

/** Fat, membrane and ends cut away. */
#[EventKind('trim', sayings: [new Saying('trim')], offered: ['prep' => 20], isMarked: true)]
final readonly class Trim implements Detail
{
    public function __construct(
        #[Says(isOurs: true)] public ?Weight $beforeKg = null,
        #[Says(isOurs: true)] public ?Weight $afterKg = null,
        #[Says(isOurs: true, most: 500)] public ?int $piece = null,
    ) {
    }
}
