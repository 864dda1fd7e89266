<?php

declare(strict_types=1);

namespace Verjuicer\Core\Event\Kinds;

use Verjuicer\Core\Event\BeginsStage;
use Verjuicer\Core\Event\EventKind;
use Verjuicer\Core\Event\FieldOptions;
use Verjuicer\Core\Event\LinePhrase;
use Verjuicer\Core\Food\Holding;
use Verjuicer\Core\Measure\Temperature;

/** Held hot. */
#[EventKind(
    'hot_hold',
    sayings: [new LinePhrase('hold', words: 'place')],
    offered: ['cook' => 70, 'rest' => 10, 'reheat' => 10],
)]
final readonly class HotHold implements BeginsStage
{
    public function __construct(
        public ?string $place = null,
        #[FieldOptions(
            isOurs: true,
            among: [Holding::Cabinet, Holding::SteamTable, Holding::ChafingDish, Holding::Carrier],
        )]
        public ?Holding $holding = null,
        #[FieldOptions(isOurs: true)] public bool $covered = false,
        #[FieldOptions(isOurs: true)] public ?Temperature $set = null,
        #[FieldOptions(isOurs: true, most: 100)] public ?int $humidity = null,
    ) {
    }
}
