<?php

declare(strict_types=1);

namespace Verjuicer\Core\Event\Kinds;

use Verjuicer\Core\Event\BeginsStage;
use Verjuicer\Core\Event\EventKind;
use Verjuicer\Core\Event\Input;
use Verjuicer\Core\Event\Saying;
use Verjuicer\Core\Event\Says;

/** Thawing, in the cold or under running water. */
#[EventKind('thaw', sayings: [new Saying('thaw', words: 'method')], offered: ['cold_hold' => 60, 'freeze' => 60])]
final readonly class Thaw implements BeginsStage
{
    public function __construct(
        #[Says(usual: ['refrigerated', 'running_water'])] public ?string $method = null,
        #[Says(isOurs: true, input: Input::Carried)] public ?string $place = null,
    ) {
    }
}
