<?php

declare(strict_types=1);

namespace Verjuicer\Core\Food;

/** Preserving treatments of meat. Each needs a variance; smoke for flavour needs none. */
enum Treatment: string
{
    case Cured = 'cured';
    case ColdSmoked = 'cold_smoked';
    case SmokedToPreserve = 'smoked_to_preserve';
    case Acidified = 'acidified';
}
