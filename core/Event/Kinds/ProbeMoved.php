<?php

declare(strict_types=1);

namespace Verjuicer\Core\Event\Kinds;

use Verjuicer\Core\Event\Detail;
use Verjuicer\Core\Event\EventKind;
use Verjuicer\Core\Event\Input;
use Verjuicer\Core\Event\Saying;
use Verjuicer\Core\Event\Says;

/** The probe left this spot: its readings may not have been of the coldest place. */
#[EventKind('probe_moved', sayings: [new Saying('moved', words: 'spot')], offered: ['cook' => 60], isMarked: true)]
final readonly class ProbeMoved implements Detail
{
    public function __construct(
        #[Says(most: 500)] public int $piece = 1,
        public string $spot = 'core',
        #[Says(isOurs: true)] public ?string $toSpot = null,
        #[Says(isOurs: true, input: Input::Carried)] public bool $misplaced = false,
    ) {
    }
}
