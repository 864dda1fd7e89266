<?php

declare(strict_types=1);

namespace Verjuicer\Core\Event\Kinds;

use Verjuicer\Core\Event\BeginsStage;
use Verjuicer\Core\Event\EventKind;
use Verjuicer\Core\Event\FieldInput;
use Verjuicer\Core\Event\FieldOptions;
use Verjuicer\Core\Event\LinePhrase;

/** Thawing, in the cold or under running water. */
#[EventKind('thaw', sayings: [new LinePhrase('thaw', words: 'method')], offered: ['cold_hold' => 60, 'freeze' => 60])]
final readonly class Thaw implements BeginsStage
{
    public function __construct(
        #[FieldOptions(usual: ['refrigerated', 'running_water'])] public ?string $method = null,
        #[FieldOptions(isOurs: true, input: FieldInput::Carried)] public ?string $place = null,
    ) {
    }
}
