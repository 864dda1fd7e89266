<?php

declare(strict_types=1);

namespace Verjuicer\Tests\Architecture;

use PHPat\Selector\Selector;
use PHPat\Test\Builder\Rule;
use PHPat\Test\PHPat;

/** Run by PHPStan. What phpat cannot see, calls of clocks and chance, the token test in tests/Core looks for. */
final class ArchitectureRules
{
    public function testCoreKnowsNoFramework(): Rule
    {
        return PHPat::rule()
            ->classes(Selector::inNamespace('Verjuicer\Core'))
            ->canOnlyDependOn()
            ->classes(Selector::inNamespace('Verjuicer\Core'))
            ->because('the core runs without Symfony, Doctrine and HTTP');
    }

    public function testMeasuresKnowNothingElse(): Rule
    {
        return PHPat::rule()
            ->classes(Selector::inNamespace('Verjuicer\Core\Measure'))
            ->shouldNotDependOn()
            ->classes(Selector::inNamespace('Verjuicer\Core\Record'), Selector::inNamespace('Verjuicer\Core\Ruleset'), Selector::inNamespace('Verjuicer\Core\Assess'))
            ->because('measures are below records, rule sets and verdicts');
    }

    public function testOnlyTheEdgeKnowsVerdictsAreTold(): Rule
    {
        return PHPat::rule()
            ->classes(Selector::inNamespace('Verjuicer\Core\Record'))
            ->shouldNotDependOn()
            ->classes(Selector::inNamespace('Verjuicer\Core\Assess'))
            ->because('a record does not know how it is judged');
    }

    public function testCoreIsFinal(): Rule
    {
        return PHPat::rule()
            ->classes(Selector::AllOf(Selector::inNamespace('Verjuicer\Core'), Selector::Not(Selector::isInterface()), Selector::Not(Selector::isEnum())))
            ->shouldBeFinal()
            ->because('values and checks are not extended');
    }
}
