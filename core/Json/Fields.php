<?php

declare(strict_types=1);

namespace Verjuicer\Core\Json;

use Verjuicer\Core\CoreProblem;
use Verjuicer\Core\Measure\Instant;
use Verjuicer\Core\Measure\LocalDate;
use Verjuicer\Core\Measure\MalformedInstant;
use Verjuicer\Core\Measure\MalformedTemperature;
use Verjuicer\Core\Measure\Temperature;
use Verjuicer\Core\Measure\TemperatureUnit;
use Verjuicer\Core\Measure\Weight;

/**
 * The members of one JSON object, read one by one with their types. A wrong one becomes a problem with its pointer and
 * is read as null; null equals absent; unread members are in `unknown()`.
 */
final class Fields
{
    /** @var array<string, true> */
    private array $seen = [];

    /** @var array<string, mixed> unknown members of nested objects */
    private array $rest = [];

    /** @var array<array-key, mixed> */
    private readonly array $members;

    /** @param string $name its pointer within its parent; of the whole document, empty */
    public function __construct(
        \stdClass $object,
        private readonly ?self $parent,
        private readonly string $name,
        private readonly DocumentProblems $problems,
    ) {
        $this->members = (array) $object;
    }

    public function has(string $name): bool
    {
        return isset($this->members[$name]);
    }

    public function text(string $name): ?string
    {
        $this->seen[$name] = true;
        $value = $this->members[$name] ?? null;
        if ($value === null || \is_string($value)) {
            return $value;
        }
        $this->wrong($name, 'must be text, in quotes');

        return null;
    }

    /** Text that must be there and not be empty. */
    public function requiredText(string $name): ?string
    {
        $this->seen[$name] = true;
        $value = $this->members[$name] ?? null;
        if (\is_string($value) && $value !== '') {
            return $value;
        }
        $this->wrong($name, $value === null ? 'is missing: this text is required' : 'must be text that is not empty');

        return null;
    }

    public function flag(string $name): bool
    {
        $this->seen[$name] = true;
        $value = $this->members[$name] ?? false;
        if (\is_bool($value)) {
            return $value;
        }
        $this->wrong($name, 'must be true or false');

        return false;
    }

    public function count(string $name, int $default): int
    {
        $this->seen[$name] = true;
        $value = $this->members[$name] ?? $default;
        if (\is_int($value) && $value >= 1) {
            return $value;
        }
        $this->wrong($name, 'must be a whole number from 1');

        return $default;
    }

    /** A whole number from 1, where there is one. */
    public function counted(string $name): ?int
    {
        $this->seen[$name] = true;

        return isset($this->members[$name]) ? $this->count($name, 1) : null;
    }

    /** A whole number that must be there, 0 or more. */
    public function requiredWhole(string $name): int
    {
        $this->seen[$name] = true;
        $value = $this->members[$name] ?? null;
        if (\is_int($value) && $value >= 0) {
            return $value;
        }
        $this->wrong($name, 'must be a whole number from 0');

        return 0;
    }

    public function whole(string $name): ?int
    {
        $this->seen[$name] = true;
        $value = $this->members[$name] ?? null;
        if ($value === null || \is_int($value)) {
            return $value;
        }
        $this->wrong($name, 'must be a whole number');

        return null;
    }

    public function number(string $name): int|float|null
    {
        $this->seen[$name] = true;
        $value = $this->members[$name] ?? null;
        if ($value === null || \is_int($value) || \is_float($value)) {
            return $value;
        }
        $this->wrong($name, 'must be a number, without quotes');

        return null;
    }

    /** A weight in kilograms, more than nothing. */
    public function kilograms(string $name): ?Weight
    {
        $this->seen[$name] = true;
        $value = $this->members[$name] ?? null;
        if ($value === null) {
            return null;
        }
        if ((\is_int($value) || \is_float($value)) && $value > 0 && $value < 1_000_000) {
            return Weight::ofMicrograms((int) round($value * 1e9));
        }
        $this->wrong($name, 'must be a weight in kilograms, a number above 0');

        return null;
    }

    public function instant(string $name): ?Instant
    {
        $this->seen[$name] = true;
        $value = $this->members[$name] ?? null;
        if ($value === null) {
            return null;
        }
        if (\is_string($value)) {
            try {
                return Instant::parse($value);
            } catch (MalformedInstant $problem) {
                $this->wrongBy($name, $problem);

                return null;
            }
        }
        $this->wrong($name, 'must be a time in quotes, such as "2026-05-02T17:00:00Z"');

        return null;
    }

    /** A date as ISO 8601 writes it. */
    public function date(string $name): ?LocalDate
    {
        $given = $this->text($name);
        $date = $given === null ? null : LocalDate::ofIso($given);
        if ($given !== null && $date === null) {
            $this->wrong($name, 'must be a date such as "2026-05-02"');
        }

        return $date;
    }

    /** @return list<string> of a list of texts; none where it is absent */
    public function texts(string $name): array
    {
        $this->seen[$name] = true;
        $value = $this->members[$name] ?? [];
        if (\is_array($value) && array_filter($value, \is_string(...)) === $value) {
            return array_values($value);
        }
        $this->wrong($name, 'must be a list of texts');

        return [];
    }

    /**
     * Several of the values an enumeration lists; none where the list is absent.
     *
     * @template T of \BackedEnum
     *
     * @param class-string<T> $values
     *
     * @return list<T>
     */
    public function choices(string $name, string $values): array
    {
        $chosen = [];
        foreach ($this->texts($name) as $value) {
            $case = $values::tryFrom($value);
            if ($case === null) {
                $known = array_map(static fn (\BackedEnum $one): string => (string) $one->value, $values::cases());
                $this->wrong($name, \sprintf('holds what is not known: write some of %s', implode(', ', $known)));
            } else {
                $chosen[] = $case;
            }
        }

        return $chosen;
    }

    /** @return list<int> different whole numbers from 1, at least one; null where the list is absent */
    public function numbers(string $name): ?array
    {
        $this->seen[$name] = true;
        $value = $this->members[$name] ?? null;
        if ($value === null) {
            return null;
        }
        $numbers = \is_array($value)
            ? array_filter($value, static fn (mixed $one): bool => \is_int($one) && $one >= 1)
            : [];
        if ($numbers !== [] && $numbers === $value && \count(array_unique($numbers)) === \count($numbers)) {
            return array_values($numbers);
        }
        $this->wrong($name, 'must be a list of different whole numbers from 1, at least one');

        return null;
    }

    /** One member by itself, with problems of its own, for members that may be wrong without harm. */
    public function alone(string $name, DocumentProblems $problems): self
    {
        $object = isset($this->members[$name]) ? (object) [$name => $this->members[$name]] : new \stdClass();

        return new self($object, null, '', $problems);
    }

    /** Says that a member was read, elsewhere. */
    public function take(string $name): void
    {
        $this->seen[$name] = true;
    }

    public function requiredInstant(string $name): ?Instant
    {
        if (!isset($this->members[$name])) {
            $this->wrong($name, 'is missing: a time such as "2026-05-02T17:00:00Z" is required');
        }

        return $this->instant($name);
    }

    /** An object with exactly one of `f` or `c`, a number with at most one decimal. */
    public function temperature(string $name): ?Temperature
    {
        $this->seen[$name] = true;
        $value = $this->members[$name] ?? null;
        if ($value === null) {
            return null;
        }
        if (!$value instanceof \stdClass) {
            $this->wrong($name, 'must be a temperature, an object such as {"f": 203.5} or {"c": 95.0}');

            return null;
        }
        $f = $value->f ?? null;
        $c = $value->c ?? null;
        if (($f === null) === ($c === null)) {
            $this->wrong($name, 'must hold exactly one of "f" or "c"');

            return null;
        }
        $number = $f ?? $c;
        if (!\is_int($number) && !\is_float($number)) {
            $this->wrong($name.'/'.($f !== null ? 'f' : 'c'), 'must be a number of degrees, without quotes');

            return null;
        }
        // The one place where a float comes in: a decimal with one digit is the float nearest to tenths / 10, so this
        // test is exact.
        $tenths = (int) round(max(-1e6, min(1e6, $number)) * 10);
        try {
            if (abs($number) < 1e6 && (float) ($tenths / 10) !== (float) $number) {
                throw MalformedTemperature::tooFine((string) json_encode($number));
            }
            $temperature = Temperature::ofTenths(
                $tenths,
                $f !== null ? TemperatureUnit::Fahrenheit : TemperatureUnit::Celsius,
            );
        } catch (MalformedTemperature $problem) {
            $this->wrongBy($name, $problem);

            return null;
        }
        $this->keepRest($name, $value);

        return $temperature;
    }

    public function requiredTemperature(string $name): ?Temperature
    {
        if (!isset($this->members[$name])) {
            $this->wrong($name, 'is missing: a temperature such as {"f": 203.5} is required');
        }

        return $this->temperature($name);
    }

    /**
     * One of the values an enumeration lists.
     *
     * @template T of \BackedEnum
     *
     * @param class-string<T> $values
     *
     * @return T|null
     */
    public function choice(string $name, string $values): ?\BackedEnum
    {
        $this->seen[$name] = true;
        $value = $this->members[$name] ?? null;
        if ($value === null) {
            return null;
        }
        $case = \is_string($value) ? $values::tryFrom($value) : null;
        if ($case === null) {
            $known = implode(
                ', ',
                array_map(static fn (\BackedEnum $one): string => (string) $one->value, $values::cases()),
            );
            $this->wrong($name, \sprintf('is not known: write one of %s', $known));
        }

        return $case;
    }

    /**
     * @template T of \BackedEnum
     *
     * @param class-string<T> $values
     *
     * @return T|null
     */
    public function requiredChoice(string $name, string $values): ?\BackedEnum
    {
        if (!isset($this->members[$name])) {
            $known = implode(
                ', ',
                array_map(static fn (\BackedEnum $one): string => (string) $one->value, $values::cases()),
            );
            $this->wrong($name, \sprintf('is missing: one of %s is required', $known));
        }

        return $this->choice($name, $values);
    }

    /** The fields of an object that must be there. */
    public function object(string $name): ?self
    {
        $this->seen[$name] = true;
        $value = $this->members[$name] ?? null;
        if ($value instanceof \stdClass) {
            return new self($value, $this, $name, $this->problems);
        }
        $this->wrong($name, $value === null ? 'is missing: this object is required' : 'must be an object');

        return null;
    }

    /**
     * The objects of a list, each with its own pointer.
     *
     * @return \Generator<int, self>
     */
    public function objects(string $name, bool $required): \Generator
    {
        $this->seen[$name] = true;
        $value = $this->members[$name] ?? null;
        if ($value === null) {
            if ($required) {
                $this->wrong($name, 'is missing: this list is required');
            }

            return;
        }
        if (!\is_array($value)) {
            $this->wrong($name, 'must be a list');

            return;
        }
        foreach (array_values($value) as $index => $item) {
            if ($item instanceof \stdClass) {
                yield $index => new self($item, $this, $name.'/'.$index, $this->problems);
            } else {
                $this->wrong($name.'/'.$index, 'must be an object');
            }
        }
    }

    /** Says that a field is wrong in a way only the caller can know. */
    public function wrong(string $name, string $what): void
    {
        $this->problems->add($this->pointer().'/'.$name, \sprintf('"%s" %s.', basename($name), $what));
    }

    public function wrongBy(string $name, CoreProblem $problem): void
    {
        $this->problems->add($this->pointer().'/'.$name, $problem->getMessage());
    }

    /**
     * Unread members, to be kept and ignored.
     *
     * @return array<string, mixed>
     */
    public function unknown(): array
    {
        $unknown = $this->rest;
        foreach ($this->members as $name => $value) {
            if (!isset($this->seen[$name])) {
                $unknown[(string) $name] = $value;
            }
        }

        return $unknown;
    }

    private function keepRest(string $name, \stdClass $temperature): void
    {
        $rest = array_diff_key((array) $temperature, ['f' => true, 'c' => true]);
        if ($rest !== []) {
            $this->rest[$name] = (object) $rest;
        }
    }

    private function pointer(): string
    {
        return $this->parent === null ? '' : $this->parent->pointer().'/'.$this->name;
    }
}
