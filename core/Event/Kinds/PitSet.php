<?php

declare(strict_types=1);

namespace Verjuicer\Core\Event\Kinds;

use Verjuicer\Core\Event\Detail;
use Verjuicer\Core\Event\EventKind;
use Verjuicer\Core\Event\FieldInput;
use Verjuicer\Core\Event\FieldOptions;
use Verjuicer\Core\Event\LinePhrase;
use Verjuicer\Core\Measure\Temperature;

/** A new set point of the pit. */
#[EventKind(
    'pit_set',
    sayings: [new LinePhrase('set', words: 'pit', number: 'set')],
    offered: ['cook' => 50],
    isMarked: true,
)]
final readonly class PitSet implements Detail
{
    public function __construct(
        public Temperature $set,
        #[FieldOptions(isOurs: true, input: FieldInput::Listed)] public ?string $pit = null,
    ) {
    }
}
