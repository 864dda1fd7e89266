<?php

declare(strict_types=1);

namespace Verjuicer\App\Reporting\Exchange;

use Verjuicer\Core\Event\EventKinds;
use Verjuicer\Core\Event\Field;
use Verjuicer\Core\Event\FieldType;
use Verjuicer\Core\Record\Event;
use Verjuicer\Core\Record\Record;
use Verjuicer\Core\Record\Writer;

/** Events as a table: a column for each field that a kind of event has, as the catalogue tells of them; and back. */
final readonly class EventTable
{
    /** The record without its events, as JSON, with the first event of each batch: another kitchen begins with it. */
    public const RECORD = 'record';
    public const BEFORE = ['batch', 'tag', 'product', self::RECORD, 'event', 'at_utc', 'recorded_at_utc', 'by', 'type'];
    public const AFTER = ['imported_by', 'imported_says_utc', 'extensions', 'replaces', 'reason', 'replaced_by'];
    /** Files that were written before every field had its column have all of them in one. */
    public const ALL_IN_ONE = 'members';

    private const JSON =
        \JSON_THROW_ON_ERROR | \JSON_UNESCAPED_UNICODE | \JSON_UNESCAPED_SLASHES | \JSON_PRESERVE_ZERO_FRACTION;

    /** @return list<string> */
    public static function columns(): array
    {
        return [...self::BEFORE, ...array_keys(self::fields()), ...self::AFTER];
    }

    /** @return array<string, Field> of all kinds, each name once, in the order of the kinds */
    public static function fields(): array
    {
        $fields = [];
        foreach (EventKinds::all() as $kind) {
            $fields += $kind->fields;
        }

        return $fields;
    }

    /** @return list<string|int|null> in the order of the columns */
    public static function row(int $tag, Record $record, Event $event, bool $isFirst, ?string $replacedBy): array
    {
        $written = Writer::members($event);
        $row = [
            $record->code,
            $tag,
            $record->product->name,
            $isFirst ? self::withoutEvents($record) : null,
            $event->id,
            $event->at->rfc3339(),
            $event->recordedAt?->rfc3339(),
            $event->by,
            $event->kind()->name(),
        ];
        foreach (self::fields() as $name => $field) {
            $row[] = self::cell($field, $written[$name] ?? null);
        }

        return [
            ...$row,
            $event->imported?->by,
            $event->imported?->saysRecordedAt?->rfc3339(),
            $event->extensions === [] ? null : json_encode((object) $event->extensions, self::JSON),
            $event->replaces,
            $event->reason,
            $replacedBy,
        ];
    }

    /**
     * A line as an event of the open format, for the reader every record goes through.
     *
     * @param \Closure(string): string $cell by column
     *
     * @return \stdClass|null null where a JSON cell holds no object
     */
    public static function event(\Closure $cell, bool $isAllInOne): ?\stdClass
    {
        $more = $cell($isAllInOne ? self::ALL_IN_ONE : 'extensions');
        $members = $more === '' ? new \stdClass() : json_decode($more);
        if (!$members instanceof \stdClass) {
            return null;
        }
        $kind = EventKinds::named($cell('type'));
        foreach ($isAllInOne || $kind === null ? [] : $kind->fields as $name => $field) {
            if ($cell($name) !== '') {
                $members->{$name} = self::written($field, $cell($name));
            }
        }
        if (!$isAllInOne && $cell('imported_by') !== '') {
            $says = $cell('imported_says_utc');
            $members->imported =
                (object) (['by' => $cell('imported_by')] + ($says === '' ? [] : ['says_recorded_at' => $says]));
        }
        $envelope = array_filter(
            [
                'id' => $cell('event'),
                'at' => $cell('at_utc'),
                'by' => $cell('by'),
                'type' => $cell('type'),
                'replaces' => $cell('replaces'),
                'reason' => $cell('reason'),
                'recorded_at' => $cell('recorded_at_utc'),
            ],
            static fn (string $value): bool => $value !== '',
        );

        return (object) ($envelope + (array) $members);
    }

    private static function withoutEvents(Record $record): string
    {
        $data = Writer::toData($record);
        if ($data->batch instanceof \stdClass) {
            $data->batch->events = [];
        }

        return json_encode($data, self::JSON);
    }

    private static function cell(Field $field, mixed $written): string|int|null
    {
        return match (true) {
            $written === null => null,
            $field->type === FieldType::Temperature => self::degrees($written),
            $field->type === FieldType::Flag => $written === true ? 'true' : 'false',
            $field->type === FieldType::Words && \is_array($written) => implode(
                ' ',
                array_filter($written, \is_string(...)),
            ),
            \is_int($written), \is_string($written) => $written,
            default => json_encode($written, self::JSON),
        };
    }

    /** "203F": the number with its unit. */
    private static function degrees(mixed $written): string
    {
        $members = \is_object($written) ? get_object_vars($written) : [];
        $unit = array_key_first($members);

        return $unit === null || !is_numeric($members[$unit]) ? '' : $members[$unit].strtoupper((string) $unit);
    }

    /** An invalid value stays as it is, so that the reader can report it. */
    private static function written(Field $field, string $cell): mixed
    {
        return match ($field->type) {
            FieldType::Temperature => preg_match('/^(-?\d+(?:\.\d+)?)\s*(?:°)?([FCfc])$/D', $cell, $part) === 1
                ? (object) [strtolower($part[2]) => json_decode($part[1])]
                : $cell,
            FieldType::Flag => ['true' => true, 'false' => false][$cell] ?? $cell,
            FieldType::Whole, FieldType::Weight => is_numeric($cell) ? json_decode($cell) : $cell,
            FieldType::Words => explode(' ', $cell),
            default => $cell,
        };
    }
}
