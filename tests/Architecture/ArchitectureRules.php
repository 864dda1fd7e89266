<?php

declare(strict_types=1);

namespace Verjuicer\Tests\Architecture;

use PHPat\Selector\Selector;
use PHPat\Test\Attributes\TestRule;
use PHPat\Test\Builder\Rule;
use PHPat\Test\PHPat;

/**
 * The floors of the house: what stands below knows nothing of what stands above. Run by PHPStan. That no circle runs
 * between folders, and what phpat cannot see, calls of clocks and chance, tests beside this one look for.
 */
final class ArchitectureRules
{
    private const CORE = [
        'Measure',
        'Json',
        'Food',
        'Event',
        'Ruleset',
        'Record',
        'Series',
        'Thermal',
        'Pit',
        'Assess',
        'Forecast',
        'Proof',
    ];
    private const FLOORS = [
        'Platform',
        'Site',
        'Catalogue',
        'Ledger',
        'Projection',
        'Operations',
        'Reporting',
        'EntryPoint',
    ];

    #[TestRule]
    public function coreKnowsNoFramework(): Rule
    {
        return PHPat::rule()
            ->classes(Selector::inNamespace('Verjuicer\Core'))
            ->canOnlyDependOn()
            ->classes(Selector::inNamespace('Verjuicer\Core'))
            ->because('the core runs without Symfony, Doctrine and HTTP');
    }

    #[TestRule]
    public function coreIsFinal(): Rule
    {
        return PHPat::rule()
            ->classes(
                Selector::AllOf(
                    Selector::inNamespace('Verjuicer\Core'),
                    Selector::Not(Selector::isInterface()),
                    Selector::Not(Selector::isEnum()),
                ),
            )
            ->shouldBeFinal()
            ->because('values and checks are not extended');
    }

    /** @return iterable<Rule> */
    #[TestRule]
    public function partsOfTheCoreKnowNothingAboveThem(): iterable
    {
        yield from self::floors('Verjuicer\Core\\', self::CORE);
    }

    /** @return iterable<Rule> */
    #[TestRule]
    public function floorsKnowNothingAboveThem(): iterable
    {
        yield from self::floors('Verjuicer\App\\', self::FLOORS);
    }

    /**
     * @param non-empty-string $root
     * @param list<non-empty-string> $floors the lowest first
     *
     * @return iterable<Rule>
     */
    private static function floors(string $root, array $floors): iterable
    {
        foreach (\array_slice($floors, 0, -1) as $index => $floor) {
            $above = array_map(
                static fn (string $one) => Selector::inNamespace($root.$one),
                \array_slice($floors, $index + 1),
            );
            yield PHPat::rule()
                ->classes(Selector::inNamespace($root.$floor))
                ->shouldNotDependOn()
                ->classes(...$above)
                ->because($floor.' stands below '.implode(', ', \array_slice($floors, $index + 1)));
        }
    }
}
