<?php

declare(strict_types=1);

namespace Verjuicer\Core\Event;

use Verjuicer\Core\Json\Fields;

/** Reads the fields of an event besides its envelope. */
final readonly class DetailReader
{
    /** @return Detail|null null if a member of the open format is wrong or missing; the problems name it */
    public static function read(Kind $kind, Fields $fields): ?Detail
    {
        $values = [];
        $isWhole = true;
        foreach ($kind->fields as $name => $field) {
            $values[$name] = $field->isOurs()
                ? FieldValue::readOurs($field, $fields)
                : FieldValue::read($field, $fields);
            $isWhole = $isWhole && ($values[$name] !== null || !$field->isRequired);
        }

        return $isWhole ? $kind->make($values) : null;
    }
}
