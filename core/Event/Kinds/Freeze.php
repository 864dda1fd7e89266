<?php

declare(strict_types=1);

namespace Verjuicer\Core\Event\Kinds;

use Verjuicer\Core\Event\BeginsStage;
use Verjuicer\Core\Event\EventKind;
use Verjuicer\Core\Event\Saying;
use Verjuicer\Core\Event\Says;

/** Into the freezer. */
#[EventKind('freeze', sayings: [new Saying('freeze', words: 'place')], offered: ['cold_hold' => 50, 'freeze' => 50])]
final readonly class Freeze implements BeginsStage
{
    public function __construct(#[Says(isOurs: true)] public ?string $place = null)
    {
    }
}
