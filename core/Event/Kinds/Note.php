<?php

declare(strict_types=1);

namespace Verjuicer\Core\Event\Kinds;

use Verjuicer\Core\Event\Detail;
use Verjuicer\Core\Event\EventKind;
use Verjuicer\Core\Event\FieldInput;
use Verjuicer\Core\Event\FieldOptions;
use Verjuicer\Core\Event\LinePhrase;
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
        new LinePhrase('note', words: 'text'),
        new LinePhrase('weigh', sets: ['step' => 'weighed'], amounts: ['total_kg']),
        new LinePhrase('fuel', words: 'text', sets: ['pit_sign' => 'fuel']),
        new LinePhrase('wood', words: 'text', sets: ['pit_sign' => 'wood']),
        new LinePhrase('stir', words: 'text', sets: ['pit_sign' => 'coals_stirred']),
        new LinePhrase('water', words: 'text', sets: ['pit_sign' => 'water_pan']),
        new LinePhrase('lid', words: 'text', sets: ['pit_sign' => 'lid_opened']),
        new LinePhrase('shut', words: 'text', sets: ['pit_sign' => 'lid_closed']),
        new LinePhrase('vents', words: 'text', sets: ['pit_sign' => 'vents']),
        new LinePhrase('unit', words: 'text', number: 'temp', sets: ['step' => 'unit_set']),
        new LinePhrase('outside', words: 'text', number: 'temp', sets: ['step' => 'outdoor']),
        new LinePhrase('loaded', words: 'place', sets: ['step' => 'loaded']),
        new LinePhrase('onway', words: 'place', sets: ['step' => 'on_the_way']),
        new LinePhrase('arrived', words: 'place', sets: ['step' => 'arrived']),
        new LinePhrase('remind', words: 'text', sets: ['step' => 'reminder']),
        new LinePhrase('swap', words: 'text', sets: ['step' => 'swapped']),
        new LinePhrase('target', words: 'text', number: 'temp', sets: ['step' => 'target']),
    ],
    isMarked: true,
)]
final readonly class Note implements Detail
{
    public function __construct(
        public ?string $text = null,
        #[FieldOptions(isOurs: true)] public ?Instant $readyBy = null,
        #[FieldOptions(isOurs: true, input: FieldInput::Carried)] public ?NoteStep $step = null,
        #[FieldOptions(isOurs: true, input: FieldInput::Carried)] public ?Weight $totalKg = null,
        #[FieldOptions(isOurs: true, input: FieldInput::Carried)] public ?Weight $leftKg = null,
        #[FieldOptions(isOurs: true, input: FieldInput::Carried)] public ?Weight $lostKg = null,
        #[FieldOptions(isOurs: true, input: FieldInput::Carried)] public ?Weight $weightKg = null,
        #[FieldOptions(isOurs: true, input: FieldInput::Carried, most: 1000)] public ?int $depthMm = null,
        #[FieldOptions(isOurs: true, input: FieldInput::Carried)] public ?string $mixedFrom = null,
        #[FieldOptions(isOurs: true, input: FieldInput::Carried)] public ?LocalDate $useBy = null,
        #[FieldOptions(isOurs: true, input: FieldInput::Carried)] public ?string $pieceNumbers = null,
        #[FieldOptions(isOurs: true, input: FieldInput::Carried)] public ?int $asTag = null,
        #[FieldOptions(isOurs: true, input: FieldInput::Carried)] public ?int $portions = null,
        #[FieldOptions(isOurs: true, input: FieldInput::Carried)] public ?PitSign $pitSign = null,
        #[FieldOptions(isOurs: true, input: FieldInput::Carried)] public ?string $pit = null,
        #[FieldOptions(isOurs: true, input: FieldInput::Carried)] public ?Temperature $temp = null,
        #[FieldOptions(isOurs: true, input: FieldInput::Carried)] public ?string $place = null,
        #[FieldOptions(isOurs: true, input: FieldInput::Carried, most: 500)] public ?int $piece = null,
        #[FieldOptions(isOurs: true, input: FieldInput::Carried, most: 10_000)] public ?int $inMinutes = null,
        #[FieldOptions(isOurs: true, input: FieldInput::Carried, most: 10_000)] public ?int $everyMinutes = null,
        #[FieldOptions(isOurs: true, input: FieldInput::Carried)] public ?string $does = null,
        #[FieldOptions(isOurs: true, input: FieldInput::Carried)] public ?DiscardReason $why = null,
        #[FieldOptions(isOurs: true, input: FieldInput::Carried)] public ?int $count = null,
    ) {
    }
}
