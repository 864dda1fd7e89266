<?php

declare(strict_types=1);

namespace Verjuicer\App\Operations\Thermometer;

use Verjuicer\App\Ledger\Check\AccuracyCheck;
use Verjuicer\App\Platform\Picture\TimeAxis;
use Verjuicer\Core\Measure\Instant;

/** How far off a thermometer was at each check, over time, between the two lines it must stay between. */
final readonly class DriftPicture
{
    private const LEFT = 44;
    private const RIGHT = 640;
    private const MIDDLE = 90;
    private const PIXELS_A_TOLERANCE = 40;

    /** @param list<array{x: float, y: float, check: AccuracyCheck}> $marks */
    private function __construct(public array $marks, public int $top, public int $middle, public int $bottom)
    {
    }

    /**
     * @param list<AccuracyCheck> $checks by time
     * @param int $toleranceTenths of the unit they were read in
     */
    public static function of(array $checks, int $toleranceTenths, Instant $now): self
    {
        $first = $checks[0]->at ?? $now;
        $axis = new TimeAxis($first, $now, self::LEFT, self::RIGHT);
        $marks = array_map(
            static fn (AccuracyCheck $check): array => [
                'x' => $axis->x($check->at),
                'y' => round(
                    self::MIDDLE - max(-2.0, min(2.0, $check->drift() / $toleranceTenths)) * self::PIXELS_A_TOLERANCE,
                    1,
                ),
                'check' => $check,
            ],
            $checks,
        );

        return new self(
            $marks,
            self::MIDDLE - self::PIXELS_A_TOLERANCE,
            self::MIDDLE,
            self::MIDDLE + self::PIXELS_A_TOLERANCE,
        );
    }
}
