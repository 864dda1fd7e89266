<?php

declare(strict_types=1);

namespace Verjuicer\Core\Event\Kinds;

use Verjuicer\Core\Event\BeginsStage;
use Verjuicer\Core\Event\EventKind;
use Verjuicer\Core\Event\FieldOptions;
use Verjuicer\Core\Event\LinePhrase;
use Verjuicer\Core\Food\Holding;

/** Into the cold. */
#[EventKind(
    'cold_hold',
    sayings: [new LinePhrase('cold', words: 'place')],
    offered: ['' => 10, 'received' => 10, 'thaw' => 10, 'prep' => 50, 'cool' => 10],
)]
final readonly class ColdHold implements BeginsStage
{
    public function __construct(
        public ?string $place = null,
        #[FieldOptions(isOurs: true, among: [Holding::WalkIn, Holding::IceBath])] public ?Holding $holding = null,
    ) {
    }
}
