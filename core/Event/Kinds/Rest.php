<?php

declare(strict_types=1);

namespace Verjuicer\Core\Event\Kinds;

use Verjuicer\Core\Event\BeginsStage;
use Verjuicer\Core\Event\EventKind;
use Verjuicer\Core\Event\FieldOptions;
use Verjuicer\Core\Event\LinePhrase;
use Verjuicer\Core\Food\Holding;
use Verjuicer\Core\Measure\Temperature;

/** Off the heat, before anything else. */
#[EventKind(
    'rest',
    sayings: [new LinePhrase('off', words: 'method'), new LinePhrase('rest', words: 'method')],
    offered: ['cook' => 10],
)]
final readonly class Rest implements BeginsStage
{
    public function __construct(
        public ?string $method = null,
        #[FieldOptions(
            isOurs: true,
            among: [
                Holding::Rack,
                Holding::Towels,
                Holding::Box,
                Holding::DeadOven,
                Holding::Cabinet,
                Holding::Counter,
            ],
        )]
        public ?Holding $holding = null,
        #[FieldOptions(isOurs: true)] public ?Temperature $around = null,
    ) {
    }
}
