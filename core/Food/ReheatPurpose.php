<?php

declare(strict_types=1);

namespace Verjuicer\Core\Food;

/** What reheated food is for; only hot holding has a target. */
enum ReheatPurpose: string
{
    case HotHold = 'hot_hold';
    case Immediate = 'immediate';
}
