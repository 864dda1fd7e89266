<?php

declare(strict_types=1);

namespace Verjuicer\Core\Event\Kinds;

use Verjuicer\Core\Event\BeginsStage;
use Verjuicer\Core\Event\EventKind;
use Verjuicer\Core\Event\FieldOptions;
use Verjuicer\Core\Event\LinePhrase;
use Verjuicer\Core\Food\ReheatEquipment;
use Verjuicer\Core\Food\ReheatPurpose;

/** Heating cooked food again, to be held hot or to be served at once. */
#[EventKind(
    'reheat',
    sayings: [new LinePhrase('reheat', sets: ['for' => 'hot_hold'])],
    offered: ['cold_hold' => 30, 'freeze' => 30, 'rest' => 50, 'hot_hold' => 30, 'cool' => 20],
)]
final readonly class Reheat implements BeginsStage
{
    public function __construct(
        public ReheatPurpose $for,
        #[FieldOptions(isOurs: true)] public ?ReheatEquipment $on = null,
    ) {
    }
}
