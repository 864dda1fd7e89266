<?php

declare(strict_types=1);

namespace Verjuicer\Core\Food;

/** What is done to meat so that it keeps: each asks for a variance, where smoke for flavour asks for none. */
enum Treatment: string
{
    case Cured = 'cured';
    case ColdSmoked = 'cold_smoked';
    case SmokedToPreserve = 'smoked_to_preserve';
    case Acidified = 'acidified';
}
