<?php

declare(strict_types=1);

namespace Verjuicer\Core\Food;

/** Kinds of written procedures. */
enum ProcedureKind: string
{
    case TimeControl = 'time_control';
    case Cooling = 'cooling';
    case NonContinuous = 'non_continuous';
    case VacuumPack = 'vacuum_pack';
    case Preserving = 'preserving';
    case FlavourSmoke = 'flavour_smoke';
    case Recall = 'recall';
    case ThermometerChecks = 'thermometer_checks';
    case CorrectiveActions = 'corrective_actions';
    case ConsumerAdvisory = 'consumer_advisory';

    /** Whether an authority approves it before anything is done by it. */
    public function needsApproval(): bool
    {
        return match ($this) {
            self::NonContinuous, self::Preserving => true,
            default => false,
        };
    }
}
