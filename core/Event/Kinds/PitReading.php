<?php

declare(strict_types=1);

namespace Verjuicer\Core\Event\Kinds;

use Verjuicer\Core\Event\Detail;
use Verjuicer\Core\Event\EventKind;
use Verjuicer\Core\Event\Input;
use Verjuicer\Core\Event\Saying;
use Verjuicer\Core\Event\Says;
use Verjuicer\Core\Measure\Temperature;

/** The temperature of the pit, not of the meat. */
#[EventKind('pit_reading', sayings: [new Saying('pit', words: 'pit', number: 'temp')])]
final readonly class PitReading implements Detail
{
    public function __construct(
        public Temperature $temp,
        #[Says(isOurs: true, input: Input::Listed)] public ?string $pit = null,
    ) {
    }
}
