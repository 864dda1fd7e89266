<?php

declare(strict_types=1);

namespace Verjuicer\Core\Ruleset;

/** How meat is cured, as limits of nitrite tell it apart. */
enum CuredMeat: string
{
    case Comminuted = 'comminuted';
    /** Pumped, massaged or laid in a pickle. */
    case Pickled = 'pickled';
    case Dry = 'dry';
    case Bacon = 'bacon';
}
