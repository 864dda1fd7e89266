<?php

declare(strict_types=1);

namespace Verjuicer\Core\Event\Kinds;

use Verjuicer\Core\Event\Detail;
use Verjuicer\Core\Event\EventKind;
use Verjuicer\Core\Event\FieldInput;
use Verjuicer\Core\Event\FieldOptions;
use Verjuicer\Core\Event\LinePhrase;

/** The probe left this spot: its readings may not have been of the coldest place. */
#[EventKind('probe_moved', sayings: [new LinePhrase('moved', words: 'spot')], offered: ['cook' => 60], isMarked: true)]
final readonly class ProbeMoved implements Detail
{
    public function __construct(
        #[FieldOptions(most: 500)] public int $piece = 1,
        public string $spot = 'core',
        #[FieldOptions(isOurs: true)] public ?string $toSpot = null,
        #[FieldOptions(isOurs: true, input: FieldInput::Carried)] public bool $misplaced = false,
    ) {
    }
}
