<?php

declare(strict_types=1);

namespace Verjuicer\Core\Event\Kinds;

use Verjuicer\Core\Event\EndsBatch;
use Verjuicer\Core\Event\EventKind;
use Verjuicer\Core\Event\FieldOptions;
use Verjuicer\Core\Event\LinePhrase;
use Verjuicer\Core\Food\DiscardReason;
use Verjuicer\Core\Measure\Weight;

/** Discarded or given away, all of it; a part of it is a note. The reason is the event's own. */
#[EventKind(
    'discard',
    sayings: [new LinePhrase('discard', words: 'reason', amounts: ['weight_kg'])],
    offered: [
        '' => 90,
        'received' => 90,
        'thaw' => 90,
        'cold_hold' => 90,
        'freeze' => 90,
        'prep' => 90,
        'cook' => 90,
        'rest' => 90,
        'hot_hold' => 90,
        'cool' => 90,
        'reheat' => 90,
        'time_control' => 90,
    ],
)]
final readonly class Discard implements EndsBatch
{
    public function __construct(
        #[FieldOptions(isOurs: true)] public ?DiscardReason $why = null,
        #[FieldOptions(isOurs: true)] public ?Weight $weightKg = null,
        #[FieldOptions(isOurs: true)] public bool $all = false,
    ) {
    }
}
