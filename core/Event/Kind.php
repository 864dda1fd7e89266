<?php

declare(strict_types=1);

namespace Verjuicer\Core\Event;

/** A kind of event with its fields, as declared in its class. */
final readonly class Kind
{
    /**
     * @param class-string<Detail> $class
     * @param array<string, Field> $fields by name, those of the open format first
     */
    public function __construct(public string $class, public EventKind $declared, public array $fields)
    {
    }

    public function name(): string
    {
        return $this->declared->name;
    }

    /** Whether a piece it is said of goes its own way from then on. */
    public function partsWays(): bool
    {
        return $this->declared->partsWays || $this->beginsStage();
    }

    public function beginsStage(): bool
    {
        return is_a($this->class, BeginsStage::class, true);
    }

    public function endsBatch(): bool
    {
        return is_a($this->class, EndsBatch::class, true);
    }

    public function carriesSurfaceInside(): bool
    {
        return is_a($this->class, CarriesSurfaceInside::class, true);
    }

    /**
     * The details from values by field name; missing fields take their defaults.
     *
     * @param array<string, mixed> $values of the types of the fields; every required one among them
     */
    public function make(array $values): Detail
    {
        $arguments = [];
        foreach ($this->fields as $name => $field) {
            if (($values[$name] ?? null) !== null) {
                $arguments[$field->parameter] = $values[$name];
            }
        }

        return new $this->class(...$arguments);
    }

    /** @return array<string, mixed> every value by field name, absent ones as null */
    public function values(Detail $detail): array
    {
        $properties = get_object_vars($detail);
        $values = [];
        foreach ($this->fields as $name => $field) {
            $values[$name] = $properties[$field->parameter] ?? null;
        }

        return $values;
    }
}
