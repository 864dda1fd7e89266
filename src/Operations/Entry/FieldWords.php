<?php

declare(strict_types=1);

namespace Verjuicer\App\Operations\Entry;

use Verjuicer\Core\Event\FieldType;
use Verjuicer\Core\Event\Kind;

/** What a tap or a saying sets by itself, in the words of the open format, as values of the fields. */
final readonly class FieldWords
{
    /**
     * @param array<string, string> $sets by field name
     *
     * @return array<string, mixed>
     */
    public static function values(Kind $kind, array $sets): array
    {
        $values = [];
        foreach ($sets as $name => $word) {
            $field = $kind->fields[$name];
            $values[$name] = match ($field->type) {
                FieldType::Flag => true,
                FieldType::Choice => $field->choice($word),
                default => $word,
            };
        }

        return $values;
    }
}
