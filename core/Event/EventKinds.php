<?php

declare(strict_types=1);

namespace Verjuicer\Core\Event;

use Verjuicer\Core\Measure\Instant;
use Verjuicer\Core\Measure\LocalDate;
use Verjuicer\Core\Measure\Temperature;
use Verjuicer\Core\Measure\Weight;

/**
 * Every kind of event there is: the classes in Kinds/, each with its declaration. A kind is added by adding its file.
 *
 * Read once a process, by reflection; nothing in it depends on anything but the code.
 */
final class EventKinds
{
    /** @var array<string, Kind>|null by name, in the order of their names */
    private static ?array $kinds = null;

    /** @var array<class-string<Detail>, Kind> */
    private static array $byClass = [];

    /** @return array<string, Kind> by name */
    public static function all(): array
    {
        if (self::$kinds === null) {
            self::$kinds = [];
            $files = glob(__DIR__.'/Kinds/*.php');
            foreach ($files === false ? [] : $files as $file) {
                $class = __NAMESPACE__.'\\Kinds\\'.basename($file, '.php');
                if (is_a($class, Detail::class, true)) {
                    $kind = self::of($class);
                    self::$kinds[$kind->name()] = $kind;
                }
            }
            ksort(self::$kinds);
        }

        return self::$kinds;
    }

    /** @return list<string> names of the kinds that begin a stage */
    public static function stages(): array
    {
        return array_keys(array_filter(self::all(), static fn (Kind $kind): bool => $kind->beginsStage()));
    }

    public static function named(string $name): ?Kind
    {
        return self::all()[$name] ?? null;
    }

    /** @param class-string<Detail> $class */
    public static function of(string $class): Kind
    {
        return self::$byClass[$class] ??= self::read($class);
    }

    /** @param class-string<Detail> $class */
    private static function read(string $class): Kind
    {
        $reflection = new \ReflectionClass($class);
        $declared = $reflection->getAttributes(EventKind::class)[0]->newInstance();
        $ofFormat = $ours = [];
        foreach ($reflection->getConstructor()?->getParameters() ?? [] as $parameter) {
            $field = self::field($parameter);
            if ($field->isOurs()) {
                $ours[$field->name] = $field;
            } else {
                $ofFormat[$field->name] = $field;
            }
        }

        return new Kind($class, $declared, $ofFormat + $ours);
    }

    private static function field(\ReflectionParameter $parameter): Field
    {
        $type = $parameter->getType();
        \assert($type instanceof \ReflectionNamedType, 'a field has one type');
        $says = ($parameter->getAttributes(FieldOptions::class)[0] ?? null)?->newInstance() ?? new FieldOptions();
        $of = match ($type->getName()) {
            Temperature::class => FieldType::Temperature,
            Weight::class => FieldType::Weight,
            Instant::class => FieldType::Moment,
            LocalDate::class => FieldType::Date,
            'string' => FieldType::Text,
            'bool' => FieldType::Flag,
            'int' => FieldType::Whole,
            'array' => FieldType::Words,
            default => FieldType::Choice,
        };

        return new Field(
            strtolower((string) preg_replace('/(?<!^)[A-Z]/', '_$0', $parameter->getName())),
            $parameter->getName(),
            $of,
            is_a($type->getName(), \BackedEnum::class, true) ? $type->getName() : null,
            !$parameter->isOptional(),
            $parameter->isOptional() ? $parameter->getDefaultValue() : null,
            $says,
        );
    }
}
