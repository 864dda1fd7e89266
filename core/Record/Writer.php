<?php

declare(strict_types=1);

namespace Verjuicer\Core\Record;

use Verjuicer\Core\Measure\Temperature;
use Verjuicer\Core\Measure\Weight;

/** Writes `verjuicer-record/1`; what it writes reads back as the same record, unknown members included. */
final readonly class Writer
{
    /** @param bool $onOneLine for one record a line, else for people to read */
    public static function write(Record $record, bool $onOneLine = false): string
    {
        return json_encode(
            self::toData($record),
            \JSON_THROW_ON_ERROR | \JSON_UNESCAPED_UNICODE | \JSON_UNESCAPED_SLASHES | \JSON_PRESERVE_ZERO_FRACTION | ($onOneLine ? 0 : \JSON_PRETTY_PRINT),
        );
    }

    public static function toData(Record $record): \stdClass
    {
        return self::object([
            'format' => Reader::FORMAT,
            'site' => self::object([
                'name' => $record->site->name,
                'timezone' => $record->site->zone->name,
                'unit' => $record->site->unit->value,
                'elevation_m' => $record->site->elevationM,
            ], $record->site->unknown),
            'rules' => $record->rules,
            'as_of' => $record->asOf?->rfc3339(),
            'thermometers' => array_map(self::thermometer(...), $record->thermometers),
            'batch' => self::object([
                'code' => $record->code,
                'product' => self::product($record->product),
                'events' => array_map(self::event(...), $record->events),
            ], $record->unknownOfBatch),
        ], $record->unknown);
    }

    public static function event(Event $event): \stdClass
    {
        return self::object([
            'id' => $event->id,
            'at' => $event->at->rfc3339(),
            'by' => $event->by,
            'type' => $event->type->value,
        ] + self::members($event) + ['replaces' => $event->replaces, 'reason' => $event->reason], $event->unknown);
    }

    /** @return array<string, mixed> */
    private static function members(Event $event): array
    {
        return array_map(
            static fn (mixed $value): mixed => $value instanceof Temperature ? self::temperature($value) : $value,
            $event->detail->members(),
        );
    }

    private static function thermometer(Thermometer $thermometer): \stdClass
    {
        return self::object([
            'id' => $thermometer->id,
            'checks' => array_map(static fn (ThermometerCheck $check): \stdClass => self::object([
                'at' => $check->at->rfc3339(),
                'method' => $check->method,
                'expected' => self::temperature($check->expected),
                'read' => self::temperature($check->read),
            ], $check->unknown), $thermometer->checks),
        ], $thermometer->unknown);
    }

    private static function product(Product $product): \stdClass
    {
        return self::object([
            'name' => $product->name,
            'animal' => $product->animal->value,
            'form' => $product->form->value,
            'integrity' => $product->integrity->value,
            'raw_weight_kg' => $product->rawWeight === null ? null : self::kilograms($product->rawWeight),
            'pieces' => $product->pieces,
            'stuffed' => $product->stuffed,
            'wild' => $product->wild,
            'advisory' => $product->advisory,
        ], $product->unknown);
    }

    private static function temperature(Temperature $temperature): \stdClass
    {
        return (object) [$temperature->unit->member() => $temperature->tenths / 10];
    }

    private static function kilograms(Weight $weight): int|float
    {
        return $weight->micrograms / 1_000_000_000;
    }

    /**
     * @param array<string, mixed> $members null is the same as absent
     * @param array<string, mixed> $unknown
     */
    private static function object(array $members, array $unknown): \stdClass
    {
        $object = (object) array_filter($members, static fn (mixed $value): bool => $value !== null);
        foreach ($unknown as $name => $value) {
            $known = $object->{$name} ?? null;
            $object->{$name} = $known instanceof \stdClass && $value instanceof \stdClass ? (object) ((array) $known + (array) $value) : $value;
        }

        return $object;
    }
}
