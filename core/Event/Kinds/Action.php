<?php

declare(strict_types=1);

namespace Verjuicer\Core\Event\Kinds;

use Verjuicer\Core\Event\Detail;
use Verjuicer\Core\Event\EventKind;
use Verjuicer\Core\Event\Input;
use Verjuicer\Core\Event\Says;
use Verjuicer\Core\Event\Tap;

/** A corrective action: the finding it answers and what was done. */
#[EventKind(
    'action',
    taps: [
        new Tap(
            [
                '',
                'received',
                'cold_hold',
                'freeze',
                'thaw',
                'prep',
                'cook',
                'rest',
                'hot_hold',
                'cool',
                'reheat',
                'time_control',
                'serve',
                'discard',
                'close',
            ],
            100,
            ['finding' => 'house.raw_leftover'],
        ),
    ],
)]
final readonly class Action implements Detail
{
    public function __construct(
        #[Says(input: Input::Carried)] public ?string $finding = null,
        public ?string $text = null,
        #[Says(isOurs: true)] public ?string $evidence = null,
    ) {
    }
}
