<?php

declare(strict_types=1);

namespace Verjuicer\Core\Event\Kinds;

use Verjuicer\Core\Event\Detail;
use Verjuicer\Core\Event\EventKind;
use Verjuicer\Core\Event\FieldOptions;
use Verjuicer\Core\Event\LinePhrase;
use Verjuicer\Core\Measure\Weight;

/** Fat, membrane and ends cut away. */
#[EventKind('trim', sayings: [new LinePhrase('trim')], offered: ['prep' => 20], isMarked: true)]
final readonly class Trim implements Detail
{
    public function __construct(
        #[FieldOptions(isOurs: true)] public ?Weight $beforeKg = null,
        #[FieldOptions(isOurs: true)] public ?Weight $afterKg = null,
        #[FieldOptions(isOurs: true, most: 500)] public ?int $piece = null,
    ) {
    }
}
