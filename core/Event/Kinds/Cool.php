<?php

declare(strict_types=1);

namespace Verjuicer\Core\Event\Kinds;

use Verjuicer\Core\Event\BeginsStage;
use Verjuicer\Core\Event\EventKind;
use Verjuicer\Core\Event\FieldOptions;
use Verjuicer\Core\Event\LinePhrase;
use Verjuicer\Core\Event\QuickAction;
use Verjuicer\Core\Food\Holding;
use Verjuicer\Core\Measure\Temperature;

/** Cooling, by some method. */
#[EventKind(
    'cool',
    sayings: [new LinePhrase('cool', words: 'method')],
    offered: ['rest' => 30, 'hot_hold' => 20, 'reheat' => 30],
    // A cooling that is too slow goes on elsewhere; its clock does not start again.
    taps: [
        new QuickAction(['cool'], 10, ['holding' => 'ice_bath']),
        new QuickAction(['cool'], 20, ['holding' => 'blast_chiller']),
        new QuickAction(['cool'], 30, ['holding' => 'shallow_pans']),
    ],
)]
final readonly class Cool implements BeginsStage
{
    public function __construct(
        public ?string $method = null,
        #[FieldOptions(
            isOurs: true,
            among: [
                Holding::ShallowPans,
                Holding::IceBath,
                Holding::IceWand,
                Holding::BlastChiller,
                Holding::WalkIn,
                Holding::Freezer,
                Holding::Counter,
            ],
        )]
        public ?Holding $holding = null,
        #[FieldOptions(isOurs: true, most: 1000)] public ?int $depthMm = null,
        #[FieldOptions(isOurs: true)] public bool $covered = false,
        #[FieldOptions(isOurs: true)] public ?Temperature $around = null,
    ) {
    }
}
