<?php

declare(strict_types=1);

namespace Verjuicer\Core\Food;

/** How meat feels when a probe or a finger goes in. */
enum Feel: string
{
    case Tender = 'tender';
    case Nearly = 'nearly';
    case Tight = 'tight';
}
