<?php

declare(strict_types=1);

namespace Verjuicer\Core\Event\Kinds;

use Verjuicer\Core\Event\Detail;
use Verjuicer\Core\Event\EventKind;
use Verjuicer\Core\Event\Input;
use Verjuicer\Core\Event\Saying;
use Verjuicer\Core\Event\Says;
use Verjuicer\Core\Food\DiscardReason;
use Verjuicer\Core\Food\NoteStep;
use Verjuicer\Core\Food\PitSign;
use Verjuicer\Core\Measure\Instant;
use Verjuicer\Core\Measure\LocalDate;
use Verjuicer\Core\Measure\Temperature;
use Verjuicer\Core\Measure\Weight;

/** A remark; it decides nothing. */
#[EventKind(
    'note',
    sayings: [
        new Saying('note', words: 'text'),
        new Saying('weigh', sets: ['step' => 'weighed'], amounts: ['total_kg']),
        new Saying('fuel', words: 'text', sets: ['pit_sign' => 'fuel']),
        new Saying('wood', words: 'text', sets: ['pit_sign' => 'wood']),
        new Saying('stir', words: 'text', sets: ['pit_sign' => 'coals_stirred']),
        new Saying('water', words: 'text', sets: ['pit_sign' => 'water_pan']),
        new Saying('lid', words: 'text', sets: ['pit_sign' => 'lid_opened']),
        new Saying('shut', words: 'text', sets: ['pit_sign' => 'lid_closed']),
        new Saying('vents', words: 'text', sets: ['pit_sign' => 'vents']),
        new Saying('unit', words: 'text', number: 'temp', sets: ['step' => 'unit_set']),
        new Saying('outside', words: 'text', number: 'temp', sets: ['step' => 'outdoor']),
        new Saying('loaded', words: 'place', sets: ['step' => 'loaded']),
        new Saying('onway', words: 'place', sets: ['step' => 'on_the_way']),
        new Saying('arrived', words: 'place', sets: ['step' => 'arrived']),
        new Saying('remind', words: 'text', sets: ['step' => 'reminder']),
        new Saying('swap', words: 'text', sets: ['step' => 'swapped']),
        new Saying('target', words: 'text', number: 'temp', sets: ['step' => 'target']),
    ],
    isMarked: true,
)]
final readonly class Note implements Detail
{
    public function __construct(
        public ?string $text = null,
        #[Says(isOurs: true)] public ?Instant $readyBy = null,
        #[Says(isOurs: true, input: Input::Carried)] public ?NoteStep $step = null,
        #[Says(isOurs: true, input: Input::Carried)] public ?Weight $totalKg = null,
        #[Says(isOurs: true, input: Input::Carried)] public ?Weight $leftKg = null,
        #[Says(isOurs: true, input: Input::Carried)] public ?Weight $lostKg = null,
        #[Says(isOurs: true, input: Input::Carried)] public ?Weight $weightKg = null,
        #[Says(isOurs: true, input: Input::Carried, most: 1000)] public ?int $depthMm = null,
        #[Says(isOurs: true, input: Input::Carried)] public ?string $mixedFrom = null,
        #[Says(isOurs: true, input: Input::Carried)] public ?LocalDate $useBy = null,
        #[Says(isOurs: true, input: Input::Carried)] public ?string $pieceNumbers = null,
        #[Says(isOurs: true, input: Input::Carried)] public ?int $asTag = null,
        #[Says(isOurs: true, input: Input::Carried)] public ?int $portions = null,
        #[Says(isOurs: true, input: Input::Carried)] public ?PitSign $pitSign = null,
        #[Says(isOurs: true, input: Input::Carried)] public ?string $pit = null,
        #[Says(isOurs: true, input: Input::Carried)] public ?Temperature $temp = null,
        #[Says(isOurs: true, input: Input::Carried)] public ?string $place = null,
        #[Says(isOurs: true, input: Input::Carried, most: 500)] public ?int $piece = null,
        #[Says(isOurs: true, input: Input::Carried, most: 10_000)] public ?int $inMinutes = null,
        #[Says(isOurs: true, input: Input::Carried, most: 10_000)] public ?int $everyMinutes = null,
        #[Says(isOurs: true, input: Input::Carried)] public ?string $does = null,
        #[Says(isOurs: true, input: Input::Carried)] public ?DiscardReason $why = null,
        #[Says(isOurs: true, input: Input::Carried)] public ?int $count = null,
    ) {
    }
}
