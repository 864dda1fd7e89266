<?php

declare(strict_types=1);

namespace Verjuicer\Core\Assess\Zone;

use Verjuicer\Core\Measure\Temperature;
use Verjuicer\Core\Measure\TemperatureUnit;
use Verjuicer\Core\Measure\Threshold;

/**
 * Where temperatures lie to the zone between two limits, and how long a straight line is strictly within it; all of it
 * in integers.
 */
final readonly class ZoneSide
{
    /** @var array<string, array{int, int}> both limits as printed in a unit, in ninetieths of a degree */
    private array $levels;

    public function __construct(Threshold $cold, Threshold $hot)
    {
        $levels = [];
        foreach (TemperatureUnit::cases() as $unit) {
            $levels[$unit->value] = [$cold->printedIn($unit)->ninetieths, $hot->printedIn($unit)->ninetieths];
        }
        $this->levels = $levels;
    }

    /** @return array{int, int} both limits as they are printed in a unit, in ninetieths of a degree Celsius */
    public function levels(TemperatureUnit $unit): array
    {
        return $this->levels[$unit->value];
    }

    /**
     * The part of the line from one temperature at one second to another at a later one that is strictly within the
     * zone.
     *
     * @param int $side where the one lies
     * @param int $sideOther where the other lies
     *
     * @return array{int, int}|null nanoseconds since 1970; null where none of it is
     */
    public function stay(Temperature $one, int $side, int $at, Temperature $other, int $sideOther, int $atOther): ?array
    {
        $isMixed = $one->unit !== $other->unit;
        if ($side === $sideOther && !$isMixed) {
            return $side === 0 ? [ExposureLine::SECOND * $at, ExposureLine::SECOND * $atOther] : null;
        }
        $unit = $isMixed ? TemperatureUnit::Fahrenheit : $one->unit;
        [$cold, $hot] = $this->levels[$unit->value];
        $from = $this->level($one, $side, $cold, $hot, $isMixed);
        $to = $this->level($other, $sideOther, $cold, $hot, $isMixed);
        if ($from === $to) {
            return $from > $cold && $from < $hot ? [ExposureLine::SECOND * $at, ExposureLine::SECOND * $atOther] : null;
        }
        [$enters, $leaves] = $from < $to ? [$cold, $hot] : [$hot, $cold];
        $starts = $this->isBefore($from, $enters, $from < $to)
            ? self::crossing($at, $atOther, $from, $to, $enters)
            : ExposureLine::SECOND * $at;
        $ends = $this->isBefore($leaves, $to, $from < $to)
            ? self::crossing($at, $atOther, $from, $to, $leaves)
            : ExposureLine::SECOND * $atOther;

        return $starts < $ends ? [
            max(ExposureLine::SECOND * $at, $starts),
            min(ExposureLine::SECOND * $atOther, $ends),
        ] : null;
    }

    /**
     * Ninetieths of a degree; of two units each no lower than the hot limit that it reaches by its own, no higher than
     * the cold one.
     */
    private function level(Temperature $temperature, int $side, int $cold, int $hot, bool $isMixed): int
    {
        $level = $temperature->ninetieths;

        return !$isMixed
            ? $level
            : match ($side) {
                1 => max($level, $hot),
                -1 => min($level, $cold),
                default => $level,
            };
    }

    private function isBefore(int $one, int $other, bool $isRising): bool
    {
        return $isRising ? $one < $other : $one > $other;
    }

    /** Nanoseconds since 1970 at which the line has the level, to the nearest; in two steps so that none overflows. */
    private static function crossing(int $at, int $atOther, int $from, int $to, int $level): int
    {
        [$rise, $way] = $to > $from ? [$to - $from, $level - $from] : [$from - $to, $from - $level];
        $product = $way * ($atOther - $at);
        $whole = intdiv($product, $rise);
        $rest = $product - $whole * $rise;

        return ExposureLine::SECOND * ($at + $whole) + intdiv(2 * ExposureLine::SECOND * $rest + $rise, 2 * $rise);
    }
}
