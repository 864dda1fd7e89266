<?php

declare(strict_types=1);

namespace Verjuicer\Core\Event\Kinds;

use Verjuicer\Core\Event\BeginsStage;
use Verjuicer\Core\Event\EventKind;
use Verjuicer\Core\Event\FieldInput;
use Verjuicer\Core\Event\FieldOptions;
use Verjuicer\Core\Measure\Temperature;

/** Taken in at the door. */
#[EventKind('received')]
final readonly class Received implements BeginsStage
{
    public function __construct(
        public ?Temperature $temp = null,
        #[FieldOptions(input: FieldInput::Carried)] public bool $frozen = false,
        public ?string $supplier = null,
        public ?string $lot = null,
        #[FieldOptions(isOurs: true, input: FieldInput::Carried)] public ?string $thermometer = null,
    ) {
    }
}
