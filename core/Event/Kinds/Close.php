<?php

declare(strict_types=1);

namespace Verjuicer\Core\Event\Kinds;

use Verjuicer\Core\Event\EndsBatch;
use Verjuicer\Core\Event\EventKind;
use Verjuicer\Core\Event\FieldInput;
use Verjuicer\Core\Event\FieldOptions;
use Verjuicer\Core\Food\NoteStep;

/** The record is closed. */
#[EventKind('close', offered: ['serve' => 10, 'discard' => 10, 'close' => 10])]
final readonly class Close implements EndsBatch
{
    public function __construct(
        #[FieldOptions(isOurs: true, input: FieldInput::Carried)] public ?NoteStep $step = null,
        #[FieldOptions(isOurs: true, input: FieldInput::Carried)] public ?string $mixedInto = null,
    ) {
    }
}
