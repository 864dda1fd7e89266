<?php

declare(strict_types=1);

namespace Verjuicer\App\Operations\Alarm;

/** How urgent an alarm is. */
enum AlarmLevel: string
{
    /** Food is being lost: somebody is woken for it. */
    case Wake = 'wake';
    /** Somebody has to act soon. */
    case Act = 'act';
    /** Somebody should look when there is time. */
    case Look = 'look';
}
