<?php

declare(strict_types=1);

namespace Verjuicer\Core\Event\Kinds;

use Verjuicer\Core\Event\BeginsStage;
use Verjuicer\Core\Event\EventKind;
use Verjuicer\Core\Event\LinePhrase;
use Verjuicer\Core\Food\TimePlan;

/** Time as a public health control: service without heat, by the clock. */
#[EventKind(
    'time_control',
    sayings: [new LinePhrase('clock')],
    offered: ['cold_hold' => 40, 'freeze' => 40, 'hot_hold' => 40],
)]
final readonly class TimeControl implements BeginsStage
{
    public function __construct(public TimePlan $plan)
    {
    }
}
