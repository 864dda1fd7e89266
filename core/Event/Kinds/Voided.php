<?php

declare(strict_types=1);

namespace Verjuicer\Core\Event\Kinds;

use Verjuicer\Core\Event\Detail;
use Verjuicer\Core\Event\EventKind;
use Verjuicer\Core\Event\FieldInput;
use Verjuicer\Core\Event\FieldOptions;

/** Takes an earlier entry back; which one, and why, is the event's own. */
#[EventKind('void')]
final readonly class Voided implements Detail
{
    /** @param string|null $range shared property of several entries voided for one reason */
    public function __construct(#[FieldOptions(isOurs: true, input: FieldInput::Carried)] public ?string $range = null)
    {
    }
}
