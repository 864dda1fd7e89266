<?php

declare(strict_types=1);

namespace Verjuicer\Core\Ruleset;

use Verjuicer\Core\Json\DocumentProblems;
use Verjuicer\Core\Json\Fields;
use Verjuicer\Core\Measure\MalformedTemperature;
use Verjuicer\Core\Measure\Span;
use Verjuicer\Core\Measure\Temperature;
use Verjuicer\Core\Measure\TemperatureUnit;
use Verjuicer\Core\Measure\Threshold;

/** The members of one object of a rule set file, read as limits, spans and citations; problems are collected. */
final readonly class RuleFields
{
    public function __construct(private Fields $fields, private DocumentProblems $problems, private string $file)
    {
    }

    public function has(string $name): bool
    {
        return $this->fields->has($name);
    }

    public function part(string $name): self
    {
        $part = $this->fields->object($name) ?? new Fields(new \stdClass(), null, '', new DocumentProblems());

        return new self($part, $this->problems, $this->file);
    }

    /** @return \Generator<int, self> */
    public function objects(string $name): \Generator
    {
        foreach ($this->fields->objects($name, true) as $index => $one) {
            yield $index => new self($one, $this->problems, $this->file);
        }
    }

    public function text(string $name): string
    {
        return $this->fields->requiredText($name) ?? '';
    }

    public function citation(): string
    {
        return $this->text('citation');
    }

    public function whole(string $name): int
    {
        return $this->fields->requiredWhole($name);
    }

    public function span(string $name): Span
    {
        return Span::ofSeconds($this->whole($name));
    }

    public function citedSpan(string $name): CitedSpan
    {
        $part = $this->part($name);

        return new CitedSpan($part->span('seconds'), $part->citation());
    }

    public function citedThreshold(string $name): CitedThreshold
    {
        $part = $this->part($name);

        return new CitedThreshold($part->threshold(), $part->citation());
    }

    /** A limit as the code prints it: in °F, in °C or in both. */
    public function threshold(): Threshold
    {
        $fahrenheit = $this->degrees(TemperatureUnit::Fahrenheit);
        $celsius = $this->degrees(TemperatureUnit::Celsius);
        if ($fahrenheit !== null && $celsius !== null) {
            return Threshold::ofPair($fahrenheit, $celsius);
        }
        if ($fahrenheit === null && $celsius === null) {
            $this->wrong('f', 'or "c" is missing: a limit is given in °F, in °C or in both');
        }

        return Threshold::ofOne($fahrenheit ?? ($celsius ?? Temperature::ofTenths(0, TemperatureUnit::Celsius)));
    }

    /** @param string|null $citation where that of the part above counts */
    public function tolerance(?string $citation = null): Tolerance
    {
        return new Tolerance(
            $citation ?? $this->citation(),
            $this->degrees(TemperatureUnit::Fahrenheit)->tenths ?? 0,
            $this->degrees(TemperatureUnit::Celsius)->tenths ?? 0,
        );
    }

    /**
     * @template T of \BackedEnum
     *
     * @param T $otherwise the result for a wrong value, which is also a problem
     *
     * @return T
     */
    public function choice(string $name, \BackedEnum $otherwise): \BackedEnum
    {
        return $this->fields->requiredChoice($name, $otherwise::class) ?? $otherwise;
    }

    public function wrong(string $name, string $what): void
    {
        $this->fields->wrong($name, $what);
    }

    /** @throws RuleSetProblem if anything was wrong so far */
    public function refuse(): void
    {
        $problems = $this->problems->all();
        if ($problems !== []) {
            throw RuleSetProblem::invalid($this->file, $problems);
        }
    }

    private function degrees(TemperatureUnit $unit): ?Temperature
    {
        $number = $this->fields->number($unit->member());
        if ($number === null) {
            return null;
        }
        try {
            return Temperature::parse((string) $number, $unit);
        } catch (MalformedTemperature $problem) {
            $this->fields->wrongBy($unit->member(), $problem);

            return null;
        }
    }
}
