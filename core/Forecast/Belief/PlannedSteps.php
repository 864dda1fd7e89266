<?php

declare(strict_types=1);

namespace Verjuicer\Core\Forecast\Belief;

use Verjuicer\Core\Measure\Instant;
use Verjuicer\Core\Measure\MalformedInstant;
use Verjuicer\Core\Measure\MalformedTemperature;
use Verjuicer\Core\Measure\Temperature;
use Verjuicer\Core\Measure\TemperatureUnit;
use Verjuicer\Core\Record\Record;

/** Planned steps of a batch on the heat, at a moment or at a meat temperature. */
final readonly class PlannedSteps
{
    public const WRAP = 'wrap';
    public const UNWRAP = 'unwrap';
    public const SET = 'pit_set';
    public const OFF = 'off';

    /**
     * @param int|null $at seconds since 1970
     * @param float|null $celsius of the meat
     * @param string|null $with the wrapping material
     * @param float|null $set °C of the pit
     */
    private function __construct(
        public string $what,
        public ?int $at,
        public ?float $celsius,
        public ?string $with,
        public ?float $set,
    ) {
    }

    /**
     * @param int|null $at seconds since 1970
     * @param float|null $celsius of the meat
     */
    public static function wrap(string $with, ?int $at, ?float $celsius): self
    {
        return new self(self::WRAP, $at, $at === null ? $celsius : null, $with, null);
    }

    /**
     * @param int $at seconds since 1970
     * @param float $set °C of the pit
     */
    public static function set(int $at, float $set): self
    {
        return new self(self::SET, $at, null, null, $set);
    }

    /**
     * The member `plan` of a record or its batch: objects with `type` (wrap, unwrap, pit_set, off), one of `at` (a
     * time) and `temp` (of the meat), and `with` or `set` as in the event. Unknown steps are ignored: a plan decides
     * nothing.
     *
     * @return list<self>
     */
    public static function in(Record $record): array
    {
        return array_values(array_filter(array_map(self::of(...), self::listed($record))));
    }

    /**
     * The meat temperature at which it is planned to come off.
     *
     * @return array<int, Temperature> by piece, 0 for all of them
     */
    public static function offAt(Record $record): array
    {
        $at = [];
        foreach (self::listed($record) as $one) {
            $temperature = self::of($one)?->what === self::OFF ? self::temperature($one) : null;
            if ($temperature !== null) {
                $at[\is_int($one['piece'] ?? null) ? $one['piece'] : 0] = $temperature;
            }
        }

        return $at;
    }

    /** @return list<array<array-key, mixed>> */
    private static function listed(Record $record): array
    {
        $listed = $record->extensions['plan'] ?? $record->extensionsOfBatch['plan'] ?? null;
        $listed = array_map(
            static fn (mixed $one): mixed => \is_object($one) ? get_object_vars($one) : $one,
            \is_array($listed) ? array_values($listed) : [],
        );

        return array_values(array_filter($listed, \is_array(...)));
    }

    /** @param array<array-key, mixed> $one */
    private static function of(array $one): ?self
    {
        $what = match ($one['type'] ?? null) {
            'wrap' => self::WRAP,
            'unwrap' => self::UNWRAP,
            'pit_set', 'set' => self::SET,
            'off', 'rest' => self::OFF,
            default => null,
        };
        $at = self::moment($one['at'] ?? null);
        $celsius = self::celsius(self::temperature($one));
        $set = self::celsius(self::told($one['set'] ?? null));
        if ($what === null || ($at === null && $celsius === null) || ($what === self::SET && $set === null)) {
            return null;
        }

        return new self($what, $at, $celsius, \is_string($one['with'] ?? null) ? $one['with'] : null, $set);
    }

    private static function moment(mixed $at): ?int
    {
        try {
            return \is_string($at) ? Instant::parse($at)->epoch : null;
        } catch (MalformedInstant) {
            return null;
        }
    }

    /**
     * The lowest meat temperature of the next planned step.
     *
     * @param array<array-key, mixed> $one
     */
    private static function temperature(array $one): ?Temperature
    {
        $temperature = null;
        foreach (['temp', 'at_temp', 'when', 'at'] as $name) {
            $temperature ??= self::told($one[$name] ?? null);
        }

        return $temperature;
    }

    private static function told(mixed $temperature): ?Temperature
    {
        $of = \is_object($temperature) ? get_object_vars($temperature) : $temperature;
        foreach (TemperatureUnit::cases() as $unit) {
            $degrees = \is_array($of) ? $of[strtolower($unit->value)] ?? null : null;
            if (\is_int($degrees) || \is_float($degrees)) {
                try {
                    return Temperature::ofTenths((int) round(10 * $degrees), $unit);
                } catch (MalformedTemperature) {
                    return null;
                }
            }
        }

        return null;
    }

    private static function celsius(?Temperature $temperature): ?float
    {
        return $temperature === null ? null : $temperature->ninetieths / 90;
    }
}
