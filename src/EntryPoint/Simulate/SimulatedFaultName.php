<?php

declare(strict_types=1);

namespace Verjuicer\App\EntryPoint\Simulate;

/** Faults in a simulated kitchen. */
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
    /** Sensors store unsent readings, and send them later. */
    case NetworkGone = 'network-gone';
    /** Pits and rooms without power, sensors, too. */
    case PowerCut = 'power-cut';
    /** Sensors whose clock is an hour ahead. */
    case WrongClock = 'wrong-clock';
    /** No one checks. */
    case ForgottenCheck = 'forgotten-check';
}
