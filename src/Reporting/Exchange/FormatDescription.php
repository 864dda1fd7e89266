<?php

declare(strict_types=1);

namespace Verjuicer\App\Reporting\Exchange;

use Verjuicer\Core\Event\EventKinds;
use Verjuicer\Core\Event\Field;
use Verjuicer\Core\Event\FieldType;
use Verjuicer\Core\Event\Kind;
use Verjuicer\Core\Event\Kinds\Voided;

/**
 * Events as the documents of the open format describe them: a JSON Schema and a table, out of the catalogue of kinds.
 */
final readonly class FormatDescription
{
    /** @return array<string, mixed> the JSON Schema of one event; our own members are not constrained */
    public static function schema(): array
    {
        $kinds = [];
        foreach (EventKinds::all() as $kind) {
            $then = self::ofKind($kind);
            if ($then !== []) {
                $kinds[] = ['if' => ['properties' => ['type' => ['const' => $kind->name()]]], 'then' => $then];
            }
        }

        return [
            'type' => 'object',
            'required' => ['id', 'at', 'by', 'type'],
            'properties' => [
                'id' => ['$ref' => '#/$defs/id'],
                'at' => ['$ref' => '#/$defs/time'],
                'by' => ['$ref' => '#/$defs/id'],
                'type' => ['enum' => array_keys(EventKinds::all())],
                'replaces' => ['type' => ['string', 'null']],
                'reason' => ['type' => ['string', 'null']],
            ],
            'allOf' => $kinds,
        ];
    }

    /** @return string a table in Markdown, a line a kind */
    public static function table(): string
    {
        $lines = ['| event | what it does | of the format | of ours |', '|---|---|---|---|'];
        foreach (EventKinds::all() as $kind) {
            $lines[] = \sprintf(
                '| `%s` | %s | %s | %s |',
                $kind->name(),
                self::effect($kind),
                self::fields($kind, false),
                self::fields($kind, true),
            );
        }

        return implode("\n", $lines)."\n";
    }

    /** @return array<string, mixed> */
    private static function ofKind(Kind $kind): array
    {
        $required = $properties = $ours = [];
        foreach ($kind->fields as $name => $field) {
            if ($field->isOurs()) {
                $ours[] = $name;
            } else {
                $properties[$name] = self::value($field);
                $required = $field->isRequired ? [...$required, $name] : $required;
            }
        }
        if ($kind->class === Voided::class) {
            [$required, $properties] = [['replaces'], ['replaces' => ['$ref' => '#/$defs/id']]];
        }

        return ($required === [] ? [] : ['required' => $required])
            + ($properties === [] ? [] : ['properties' => $properties])
            + ($ours === [] ? [] : ['$comment' => 'Beyond the format: '.implode(', ', $ours).'.']);
    }

    /** @return array<string, mixed> */
    private static function value(Field $field): array
    {
        $or = $field->isRequired ? [] : ['null'];
        $choices = $field->choices === null ? [] : array_column($field->choices::cases(), 'value');

        return match ($field->type) {
            FieldType::Temperature => $field->isRequired
                ? ['$ref' => '#/$defs/temperature']
                : ['oneOf' => [['$ref' => '#/$defs/temperature'], ['type' => 'null']]],
            FieldType::Choice => ['enum' => $field->isRequired ? $choices : [...$choices, null]],
            FieldType::Flag => ['type' => ['boolean', ...$or]],
            FieldType::Whole => ['type' => ['integer', ...$or], 'minimum' => 1],
            FieldType::Weight => ['type' => ['number', ...$or], 'exclusiveMinimum' => 0],
            FieldType::Words => ['type' => ['array', ...$or], 'items' => ['type' => 'string']],
            FieldType::Text, FieldType::Moment, FieldType::Date => ['type' => ['string', ...$or]],
        };
    }

    private static function effect(Kind $kind): string
    {
        return match (true) {
            $kind->endsBatch() => 'ends the batch',
            $kind->beginsStage() => 'begins a stage',
            $kind->carriesSurfaceInside() => 'non-intact from here on',
            default => '',
        };
    }

    private static function fields(Kind $kind, bool $ours): string
    {
        $fields = array_filter($kind->fields, static fn (Field $field): bool => $field->isOurs() === $ours);
        $told = array_map(
            static fn (Field $field): string => \sprintf(
                '`%s`%s: %s',
                $field->name,
                $field->isRequired ? ' (required)' : '',
                self::words($field),
            ),
            $fields,
        );

        return implode('; ', $told);
    }

    private static function words(Field $field): string
    {
        $choices = $field->choices === null ? [] : array_column($field->choices::cases(), 'value');

        return match ($field->type) {
            FieldType::Temperature => 'a temperature',
            FieldType::Text => 'text'
                .($field->says->usual === [] ? '' : ', as `'.implode('`, `', $field->says->usual).'`'),
            FieldType::Choice => '`'.implode('`, `', $choices).'`',
            FieldType::Flag => 'true or false',
            FieldType::Whole => 'a whole number'.($field->isOurs() ? ' to '.number_format($field->says->most) : ''),
            FieldType::Weight => 'kilograms',
            FieldType::Moment => 'a moment, RFC 3339',
            FieldType::Date => 'a date',
            FieldType::Words => 'a list of texts',
        };
    }
}
