<?php

declare(strict_types=1);

namespace Verjuicer\Core\Assess\Finding;

/** The action due when a countdown runs out. */
enum CountdownKind: string
{
    /** A limit of the code: past it the record no longer shows that the food is fine. */
    case Limit = 'limit';
    /** A reading to be taken. */
    case Check = 'check';
    /** A house limit: a caution, not a verdict. */
    case House = 'house';
}
