<?php

declare(strict_types=1);

namespace Verjuicer\Core\Event\Kinds;

use Verjuicer\Core\Event\Detail;
use Verjuicer\Core\Event\EventKind;
use Verjuicer\Core\Event\FieldInput;
use Verjuicer\Core\Event\FieldOptions;
use Verjuicer\Core\Event\LinePhrase;
use Verjuicer\Core\Measure\Temperature;

/** The temperature of the pit, not of the meat. */
#[EventKind('pit_reading', sayings: [new LinePhrase('pit', words: 'pit', number: 'temp')])]
final readonly class PitReading implements Detail
{
    public function __construct(
        public Temperature $temp,
        #[FieldOptions(isOurs: true, input: FieldInput::Listed)] public ?string $pit = null,
    ) {
    }
}
