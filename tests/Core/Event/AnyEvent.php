<?php

declare(strict_types=1);

namespace Verjuicer\Tests\Core\Event;

use Random\Randomizer;
use Verjuicer\Core\Event\Field;
use Verjuicer\Core\Event\FieldType;
use Verjuicer\Core\Event\Kind;
use Verjuicer\Core\Event\Kinds\Voided;
use Verjuicer\Core\Measure\Instant;
use Verjuicer\Core\Measure\LocalDate;
use Verjuicer\Core\Measure\Temperature;
use Verjuicer\Core\Measure\TemperatureUnit;
use Verjuicer\Core\Measure\Weight;
use Verjuicer\Core\Record\Event;
use Verjuicer\Core\Record\ImportOrigin;
use Verjuicer\Tests\Core\Story;

/** Events of any kind with any values, by chance. */
final readonly class AnyEvent
{
    public static function of(Kind $kind, Randomizer $chance): Event
    {
        $values = [];
        foreach ($kind->fields as $name => $field) {
            if ($field->isRequired || $chance->getInt(0, 2) > 0) {
                $values[$name] = self::value($field, $chance);
            }
        }
        $isVoid = $kind->class === Voided::class;

        return new Event(
            'e'.$chance->getInt(2, 999),
            Story::at((string) $chance->getInt(0, 900)),
            'MR',
            $kind->make($values),
            $isVoid || $chance->getInt(0, 1) === 1 ? 'first' : null,
            $chance->getInt(0, 1) === 1 ? 'a slip, "misread"' : null,
            $chance->getInt(0, 1) === 1 ? Story::at('901') : null,
            [null, new ImportOrigin('DF', null), new ImportOrigin('DF', Story::at('902'))][$chance->getInt(0, 2)],
            $chance->getInt(0, 1) === 1 ? ['of_others' => (object) ['deep' => [1, 2.5, null]]] : [],
        );
    }

    public static function value(Field $field, Randomizer $chance): mixed
    {
        $words = ['core', 'Drum', 'box 2', 'señal', '0'];

        return match ($field->type) {
            FieldType::Temperature => Temperature::ofTenths(
                $chance->getInt(-400, 5400),
                TemperatureUnit::cases()[$chance->getInt(0, 1)],
            ),
            FieldType::Text => $words[$chance->getInt(0, 4)],
            FieldType::Choice => $field->choices === null
                ? null
                : $field->choices::cases()[$chance->getInt(0, \count($field->choices::cases()) - 1)],
            FieldType::Flag => $chance->getInt(0, 9) < 5,
            FieldType::Whole => $chance->getInt(1, $field->says->most),
            FieldType::Weight => Weight::ofMicrograms($chance->getInt(1, 9_000_000) * 1_000_000),
            FieldType::Moment => Instant::ofEpoch($chance->getInt(0, 4_000_000_000)),
            FieldType::Date => LocalDate::ofIso('2026-05-02')?->plusDays($chance->getInt(0, 400)),
            FieldType::Words => \array_slice(['milk', 'wheat', 'soy'], 0, $chance->getInt(1, 3)),
        };
    }
}
