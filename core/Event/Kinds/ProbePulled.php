<?php

declare(strict_types=1);

namespace Verjuicer\Core\Event\Kinds;

use Verjuicer\Core\Event\Detail;
use Verjuicer\Core\Event\EventKind;
use Verjuicer\Core\Event\FieldOptions;
use Verjuicer\Core\Event\LinePhrase;
use Verjuicer\Core\Event\QuickAction;

/** A probe came out. */
#[EventKind(
    'probe_pulled',
    sayings: [new LinePhrase('out', words: 'spot')],
    taps: [new QuickAction(['cook'], 90)],
    isMarked: true,
)]
final readonly class ProbePulled implements Detail
{
    public function __construct(#[FieldOptions(most: 500)] public int $piece = 1, public string $spot = 'core')
    {
    }
}
