<?php

declare(strict_types=1);

namespace Verjuicer\Core\Event\Kinds;

use Verjuicer\Core\Event\Detail;
use Verjuicer\Core\Event\EventKind;
use Verjuicer\Core\Event\Input;
use Verjuicer\Core\Event\Saying;
use Verjuicer\Core\Event\Says;
use Verjuicer\Core\Measure\Temperature;

/** A new set point of the pit. */
#[EventKind(
    'pit_set',
    sayings: [new Saying('set', words: 'pit', number: 'set')],
    offered: ['cook' => 50],
    isMarked: true,
)]
final readonly class PitSet implements Detail
{
    public function __construct(
        public Temperature $set,
        #[Says(isOurs: true, input: Input::Listed)] public ?string $pit = null,
    ) {
    }
}
