<?php

declare(strict_types=1);

namespace Verjuicer\App\Operations\Alarm;

/** What can be wrong with a place, by what a sensor in it says. */
enum EquipmentDeviationKind: string
{
    /** A pit that is lit falls away from its set point. */
    case PitOut = 'pit_out';
    /** A cold place is warm. */
    case Warm = 'warm';
    /** A unit that holds hot is not. */
    case NotHot = 'not_hot';
}
