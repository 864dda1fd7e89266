<?php

declare(strict_types=1);

namespace Verjuicer\Core\Record;

use Verjuicer\Core\Event\FieldValue;
use Verjuicer\Core\Food\Treatment;

/** Writes `verjuicer-record/1`; its output reads back as the same record, extensions included. */
final readonly class Writer
{
    private const FLAGS =
        \JSON_THROW_ON_ERROR | \JSON_UNESCAPED_UNICODE | \JSON_UNESCAPED_SLASHES | \JSON_PRESERVE_ZERO_FRACTION;

    /** @param bool $onOneLine for one record a line, else for people to read */
    public static function write(Record $record, bool $onOneLine = false): string
    {
        return json_encode(self::toData($record), self::FLAGS | ($onOneLine ? 0 : \JSON_PRETTY_PRINT));
    }

    public static function toData(Record $record): \stdClass
    {
        $house = $record->site->house;

        return self::object(
            [
                'format' => Reader::FORMAT,
                'site' => self::object(
                    [
                        'name' => $record->site->name,
                        'timezone' => $record->site->zone->name,
                        'unit' => $record->site->unit->value,
                        'elevation_m' => $record->site->elevationM,
                        'house_limits' => $house->isNone() ? null : (object) $house->seconds,
                        'procedures' => $record->site->procedures === null
                            ? null
                            : array_map(self::procedure(...), $record->site->procedures),
                    ],
                    $record->site->extensions,
                ),
                'rules' => $record->rules,
                'as_of' => $record->asOf?->rfc3339(),
                'thermometers' => array_map(self::thermometer(...), $record->thermometers),
                'batch' => self::object(
                    [
                        'code' => $record->code,
                        'tag' => $record->tag,
                        'portion_of' => $record->portion?->of,
                        'portion_weight_kg' => $record->portion?->grams === null
    ? null
    : $record->portion->grams / 1000,
                        'container' => $record->portion?->container,
                        'depth_mm' => $record->portion?->depthMm,
                        'product' => self::product($record->product),
                        'events' => array_map(self::event(...), $record->events),
                    ],
                    $record->extensionsOfBatch,
                ),
            ],
            $record->extensions,
        );
    }

    public static function event(Event $event): \stdClass
    {
        $imported =
            $event->imported === null
                ? null
                : self::object(
                    [
                        'by' => $event->imported->by,
                        'says_recorded_at' => $event->imported->saysRecordedAt?->rfc3339(),
                    ],
                    [],
                );

        return self::object(
            [
                'id' => $event->id,
                'at' => $event->at->rfc3339(),
                'by' => $event->by,
                'type' => $event->kind()->name(),
            ]
                + self::members($event) + [
                    'replaces' => $event->replaces,
                    'reason' => $event->reason,
                    'recorded_at' => $event->recordedAt?->rfc3339(),
                    'imported' => $imported,
                ],
            $event->extensions,
        );
    }

    /** @return array<string, mixed> the fields besides the envelope, as in the open format; absent ones as null */
    public static function members(Event $event): array
    {
        $kind = $event->kind();
        $members = [];
        foreach ($kind->values($event->detail) as $name => $value) {
            $field = $kind->fields[$name];
            $members[$name] = $field->isOurs() && $value === $field->default ? null : FieldValue::written($value);
        }

        return $members;
    }

    private static function procedure(Procedure $procedure): \stdClass
    {
        return self::object(
            [
                'kind' => $procedure->kind->value,
                'number' => $procedure->number,
                'version' => $procedure->version,
                'from' => $procedure->from->rfc3339(),
                'to' => $procedure->to?->rfc3339(),
            ],
            [],
        );
    }

    private static function thermometer(RecordedThermometer $thermometer): \stdClass
    {
        return self::object(
            [
                'id' => $thermometer->id,
                'checks' => array_map(
                    static fn (ThermometerCheck $check): \stdClass => self::object(
                        [
                            'at' => $check->at->rfc3339(),
                            'method' => $check->method,
                            'expected' => FieldValue::written($check->expected),
                            'read' => FieldValue::written($check->read),
                        ],
                        $check->extensions,
                    ),
                    $thermometer->checks,
                ),
            ],
            $thermometer->extensions,
        );
    }

    private static function product(RecordedProduct $product): \stdClass
    {
        return self::object(
            [
                'name' => $product->name,
                'animal' => $product->animal->value,
                'form' => $product->form->value,
                'integrity' => $product->integrity->value,
                'raw_weight_kg' => $product->rawWeight?->kilograms(),
                'pieces' => $product->pieces,
                'piece_numbers' => $product->pieceNumbers,
                'treatments' => $product->treatments === []
                    ? null
                    : array_map(static fn (Treatment $one): string => $one->value, $product->treatments),
                'stuffed' => $product->stuffed,
                'wild' => $product->wild,
                'advisory' => $product->advisory,
            ],
            $product->extensions,
        );
    }

    /**
     * @param array<string, mixed> $members null is the same as absent
     * @param array<string, mixed> $extensions
     */
    private static function object(array $members, array $extensions): \stdClass
    {
        $object = (object) array_filter($members, static fn (mixed $value): bool => $value !== null);
        foreach ($extensions as $name => $value) {
            $known = $object->{$name} ?? null;
            $isPart = $known instanceof \stdClass && $value instanceof \stdClass;
            $object->{$name} = $isPart ? (object) ((array) $known + (array) $value) : $value;
        }

        return $object;
    }
}
