<?php

declare(strict_types=1);

namespace Verjuicer\Core\Event\Kinds;

use Verjuicer\Core\Event\Detail;
use Verjuicer\Core\Event\EventKind;
use Verjuicer\Core\Event\FieldInput;
use Verjuicer\Core\Event\FieldOptions;
use Verjuicer\Core\Event\QuickAction;

/** A corrective action: the finding it answers and the action taken. */
#[EventKind(
    'action',
    taps: [
        new QuickAction(
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
        #[FieldOptions(input: FieldInput::Carried)] public ?string $finding = null,
        public ?string $text = null,
        #[FieldOptions(isOurs: true)] public ?string $evidence = null,
    ) {
    }
}
