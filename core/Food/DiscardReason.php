<?php

declare(strict_types=1);

namespace Verjuicer\Core\Food;

/** Reasons for discarding food. */
enum DiscardReason: string
{
    case Safety = 'safety';
    case Waste = 'waste';
    case Donated = 'donated';
}
