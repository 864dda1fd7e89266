<?php

declare(strict_types=1);

namespace Verjuicer\Core\Forecast\Belief;

use Verjuicer\Core\Measure\Instant;
use Verjuicer\Core\Measure\MalformedInstant;
use Verjuicer\Core\Record\Record;

/** What is to be done to a batch on the heat, at a moment or when the meat is as warm. */
final readonly class Planned
{
    public const WRAP = 'wrap';
    public const UNWRAP = 'unwrap';
    public const SET = 'pit_set';
    public const OFF = 'off';

    /**
     * @param int|null $at seconds since 1970
     * @param float|null $celsius of the meat
     * @param string|null $with what it is wrapped in
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
     * time) and `temp` (of the meat), and `with` or `set` as in the event. What is not understood is left out: a plan
     * decides nothing.
     *
     * @return list<self>
     */
    public static function in(Record $record): array
    {
        $listed = $record->extensions['plan'] ?? $record->extensionsOfBatch['plan'] ?? null;
        $planned = [];
        foreach (\is_array($listed) ? $listed : [] as $one) {
            $one = \is_object($one) ? get_object_vars($one) : $one;
            $of = \is_array($one) ? self::of($one) : null;
            if ($of !== null) {
                $planned[] = $of;
            }
        }

        return $planned;
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
        $celsius = null;
        foreach (['temp', 'at_temp', 'when'] as $name) {
            $celsius ??= self::celsius($one[$name] ?? null);
        }
        $celsius ??= self::celsius($one['at'] ?? null);
        $set = self::celsius($one['set'] ?? null);
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

    private static function celsius(mixed $temperature): ?float
    {
        $of = \is_object($temperature) ? get_object_vars($temperature) : $temperature;
        if (!\is_array($of)) {
            return null;
        }
        [$c, $f] = [$of['c'] ?? null, $of['f'] ?? null];

        return match (true) {
            \is_int($c) || \is_float($c) => (float) $c,
            \is_int($f) || \is_float($f) => ($f - 32) / 1.8,
            default => null,
        };
    }
}
