<?php

declare(strict_types=1);

namespace Verjuicer\Core\Event\Kinds;

use Verjuicer\Core\Event\BeginsStage;
use Verjuicer\Core\Event\EventKind;
use Verjuicer\Core\Event\Input;
use Verjuicer\Core\Event\Says;
use Verjuicer\Core\Measure\Temperature;

/** Taken in at the door. */
#[EventKind('received')]
final readonly class Received implements BeginsStage
{
    public function __construct(
        public ?Temperature $temp = null,
        #[Says(input: Input::Carried)] public bool $frozen = false,
        public ?string $supplier = null,
        public ?string $lot = null,
        #[Says(isOurs: true, input: Input::Carried)] public ?string $thermometer = null,
    ) {
    }
}
