<?php

declare(strict_types=1);

namespace Verjuicer\Core\Event;

use Verjuicer\Core\Json\DocumentProblems;
use Verjuicer\Core\Json\Fields;
use Verjuicer\Core\Measure\Instant;
use Verjuicer\Core\Measure\LocalDate;
use Verjuicer\Core\Measure\Temperature;
use Verjuicer\Core\Measure\Weight;

/** Values of fields in the open format, and back. */
final readonly class FieldValue
{
    private const WORD_BYTES = 24;
    private const WORDS = 2000;

    /** Reads a field of the open format; a wrong one is a problem, and null. */
    public static function read(Field $field, Fields $fields): mixed
    {
        return match ($field->type) {
            FieldType::Temperature => $field->isRequired
                ? $fields->requiredTemperature($field->name)
                : $fields->temperature($field->name),
            FieldType::Text => self::word($fields->text($field->name)),
            FieldType::Choice => self::choice($field, $fields),
            FieldType::Flag => $fields->flag($field->name),
            FieldType::Whole => $fields->counted($field->name),
            FieldType::Weight => $fields->kilograms($field->name),
            FieldType::Moment => $fields->instant($field->name),
            FieldType::Date => $fields->date($field->name),
            FieldType::Words => $fields->texts($field->name),
        };
    }

    /** Reads a field of ours: one of another shape is left where it is, as an extension, and is no fault. */
    public static function readOurs(Field $field, Fields $fields): mixed
    {
        if (!$fields->has($field->name)) {
            $fields->take($field->name);

            return null;
        }
        $problems = new DocumentProblems();
        $value = self::read($field, $fields->alone($field->name, $problems));
        if (
            $problems->all() !== []
            || ($field->type === FieldType::Whole && $value !== null && $value > $field->says->most)
        ) {
            return null;
        }
        $fields->take($field->name);

        return $value;
    }

    /** As the open format holds it; null where there is nothing to write. */
    public static function written(mixed $value): mixed
    {
        return match (true) {
            $value instanceof Temperature => (object) [$value->unit->member() => $value->tenths / 10],
            $value instanceof Weight => $value->kilograms(),
            $value instanceof Instant => $value->rfc3339(),
            $value instanceof LocalDate => $value->iso(),
            $value instanceof \BackedEnum => $value->value,
            $value === [] => null,
            default => $value,
        };
    }

    /** The same for the same: records are full of the names of a few spots, thermometers and people. */
    public static function word(?string $text): ?string
    {
        /** @var array<string> $words */
        static $words = [];
        if ($text === null || \strlen($text) > self::WORD_BYTES) {
            return $text;
        }
        if (\count($words) > self::WORDS) {
            $words = [];
        }

        return $words[$text] ??= $text;
    }

    private static function choice(Field $field, Fields $fields): ?\BackedEnum
    {
        \assert($field->choices !== null, 'a choice has its values');

        return $field->isRequired
            ? $fields->requiredChoice($field->name, $field->choices)
            : $fields->choice($field->name, $field->choices);
    }
}
