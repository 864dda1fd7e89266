<?php

declare(strict_types=1);

namespace Verjuicer\Core\Food;

/** Purposes of notes that the application writes. */
enum NoteStep: string
{
    case Divided = 'divided';
    case Portioned = 'portioned';
    case Mixed = 'mixed';
    /** Pieces went their own way, under a tag of their own. */
    case PartedWays = 'parted_ways';
    /** They did not, after all. */
    case Rejoined = 'rejoined';
    /** Some of it was served, the rest goes on. */
    case ServedPart = 'served_part';
    /** Some of it was discarded, the rest goes on. */
    case DiscardedPart = 'discarded_part';
    /** It was put on the scale as it is now. */
    case Weighed = 'weighed';
    /** The set point of the unit it is held in, its humidity in the words. */
    case UnitSet = 'unit_set';
    /** How warm it is outside. */
    case Outdoor = 'outdoor';
    /** Into a carrier, on the way, there. */
    case Loaded = 'loaded';
    case OnTheWay = 'on_the_way';
    case Arrived = 'arrived';
    /** From here on another thermometer. */
    case Swapped = 'swapped';
    /** The reminder's condition, for one piece or for all. */
    case Target = 'target';
    /** Something to be done later, by the clock or by the temperature. */
    case Reminder = 'reminder';
    case ReminderDone = 'reminder_done';
    case Rotated = 'rotated';
    case ProbePlaced = 'probe_placed';
    case ProbePulled = 'probe_pulled';
    /** Readings of a probe no longer count as food from here on. */
    case ProbeFault = 'probe_fault';
    case ProbeFine = 'probe_fine';
    /** Numbers of a sensor's sequence never came. */
    case ReadingsMissing = 'readings_missing';
}
