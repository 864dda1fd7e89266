<?php

declare(strict_types=1);

namespace Verjuicer\App\EntryPoint\Demo;

use Verjuicer\App\Platform\Wording\UnitSystem;
use Verjuicer\Core\Food\Holding;
use Verjuicer\Core\Food\Oven;
use Verjuicer\Core\Food\ProcedureKind;
use Verjuicer\Core\Measure\TemperatureUnit;

/**
 * The contents and history of a made-up kitchen. Minutes count from the moment it is loaded; most are before it.
 * Temperatures are in the unit of the kitchen.
 */
final readonly class Story
{
    /**
     * @param string $password of everybody
     * @param list<array{string, string, string, string}> $people login, name, initials, role
     * @param list<array{string, string, int, list<array{string, int|float, int|null, list<string>}>}> $recipes name,
     *     kind, grams on a kilogram, and ingredients: name, parts, cents a kilogram, allergens
     * @param list<array{string, Holding, int}> $holdUnits name, kind, minutes between checks
     * @param array<string, array{string, string, string, string}> $thermometers kind, serial, range and holder by label
     * @param array<string, list<array{int, string, float}>> $checks minutes, method and reading, by label
     * @param list<array{string, Oven, int}> $pits name, kind, kilograms
     * @param array<string, list<array{int, string, string, int|null}>> $pitLog minutes, login, sign, temperature, by
     *     pit
     * @param list<array{ int, string, string, string, string, int, int, int, float|null, bool, string|null, int, bool,
     *     string|null, list<array{int, string, string}> }> $lots minutes, login, supplier, product, number, pieces,
     *     grams of all, cents, temperature, frozen, thermometer, days to its use-by, accepted, reason, and moves:
     *     minutes, kind, place
     * @param list<array{int, string, int, int|null, string|null, int|null, list<array{int, string, string}>}> $batches
     *     tag, product, pieces, grams of one, lot, minutes until service, and entries: minutes, login, log line after
     *     the tag
     * @param list<array{int, int, string, list<array{int, int, string, int|null}>, list<array{int, int, string,
     *     string}>}> $divisions tag, minutes, login, portions: tag, grams, container, mm deep; and entries: tag,
     *     minutes, login, log line after the tag
     * @param list<array{int, string, ProcedureKind}> $papers minutes, login, and the procedure adopted then
     * @param UnitSystem|null $units null for the units a new site begins with
     */
    public function __construct(
        public string $site,
        public string $timezone,
        public TemperatureUnit $unit,
        public ?int $elevationM,
        public string $ruleSet,
        public string $password,
        public array $people,
        public array $recipes = [],
        public array $holdUnits = [],
        public array $thermometers = [],
        public array $checks = [],
        public array $pits = [],
        public array $pitLog = [],
        public array $lots = [],
        public array $batches = [],
        public array $divisions = [],
        public array $papers = [],
        public ?UnitSystem $units = null,
    ) {
    }
}
