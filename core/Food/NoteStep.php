<?php

declare(strict_types=1);

namespace Verjuicer\Core\Food;

/** What a note was written down for by the application itself. */
enum NoteStep: string
{
    case Divided = 'divided';
    case Portioned = 'portioned';
    case Mixed = 'mixed';
    /** Pieces went their own way, under a tag of their own. */
    case PartedWays = 'parted_ways';
    /** Some of it was served, the rest goes on. */
    case ServedPart = 'served_part';
    /** It was put on the scale as it is now. */
    case Weighed = 'weighed';
    case Rotated = 'rotated';
    case ProbePlaced = 'probe_placed';
    case ProbePulled = 'probe_pulled';
}
