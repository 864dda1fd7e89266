<?php

declare(strict_types=1);

namespace Verjuicer\App\EntryPoint\Simulate;

/** What can go wrong in a played kitchen. */
enum SimulatedFaultName: string
{
    /** A pit gives no heat any more. */
    case DeadOven = 'dead-oven';
    /** Its fire burns low. */
    case FuelOut = 'fuel-out';
    /** A room's door stands open. */
    case DoorOpen = 'door-open';
    /** A probe is out of its plug. */
    case ProbeOut = 'probe-out';
    /** Sensors keep what they cannot send, and send it afterwards. */
    case NetworkGone = 'network-gone';
    /** Pits and rooms without power, sensors, too. */
    case PowerCut = 'power-cut';
    /** Sensors whose clock is an hour ahead. */
    case WrongClock = 'wrong-clock';
    /** Nobody looks. */
    case ForgottenCheck = 'forgotten-check';
}
