<?php

declare(strict_types=1);

namespace Verjuicer\Core\Food;

/** What a note was written down for by the application itself. */
enum NoteStep: string
{
    case Divided = 'divided';
    case Portioned = 'portioned';
    case Mixed = 'mixed';
    case Rotated = 'rotated';
    case ProbePlaced = 'probe_placed';
    case ProbePulled = 'probe_pulled';
}
