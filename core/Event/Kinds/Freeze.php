<?php

declare(strict_types=1);

namespace Verjuicer\Core\Event\Kinds;

use Verjuicer\Core\Event\BeginsStage;
use Verjuicer\Core\Event\EventKind;
use Verjuicer\Core\Event\FieldOptions;
use Verjuicer\Core\Event\LinePhrase;

/** Into the freezer. */
#[EventKind(
    'freeze',
    sayings: [new LinePhrase('freeze', words: 'place')],
    offered: ['cold_hold' => 50, 'freeze' => 50],
)]
final readonly class Freeze implements BeginsStage
{
    public function __construct(#[FieldOptions(isOurs: true)] public ?string $place = null)
    {
    }
}
