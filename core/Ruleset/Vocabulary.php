<?php

declare(strict_types=1);

namespace Verjuicer\Core\Ruleset;

/**
 * The subjects a rule set file of this vocabulary speaks of. A code that lacks one of them needs a vocabulary of its
 * own.
 */
final readonly class Vocabulary
{
    public const ID = 'verjuicer-ruleset/2';

    /** @var list<class-string<RulePart>> */
    public const PARTS = [
        Limits::class,
        CookingRules::class,
        CoolingRules::class,
        ReheatingRules::class,
        ThawingRules::class,
        TimeControlRules::class,
        DateMarkRules::class,
        VacuumPackRules::class,
        DangerZoneRules::class,
        Monitoring::class,
        ThermometerRules::class,
        HouseLimits::class,
    ];

    /** Optional parts of a code: without them there are no findings. */
    public const OPTIONAL = [ProcedureRules::class, FurtherRules::class, CuringRules::class];
}
