<?php

declare(strict_types=1);

namespace Verjuicer\Core\Assess\Evidence;

/** Whether the low rows of the roast table are open to a cook, and if not, why. */
enum LowRows: string
{
    case Open = 'open';
    case NoRoast = 'no_roast';
    case OvenUnknown = 'oven_unknown';
    case SetUnknown = 'set_unknown';
    case WeightUnknown = 'weight_unknown';
    case Closed = 'closed';
}
