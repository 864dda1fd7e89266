<?php

declare(strict_types=1);

namespace Verjuicer\Core\Food;

/** The purpose of reheating; only hot holding has a target. */
enum ReheatPurpose: string
{
    case HotHold = 'hot_hold';
    case Immediate = 'immediate';
}
