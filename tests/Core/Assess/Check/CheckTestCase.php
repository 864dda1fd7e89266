<?php

declare(strict_types=1);

namespace Verjuicer\Tests\Core\Assess\Check;

use PHPUnit\Framework\Attributes\DataProvider;
use PHPUnit\Framework\TestCase;
use Verjuicer\Core\Assess\Finding\Finding;
use Verjuicer\Tests\Core\Story;

/** One check and its table: at its limits, a tenth and a second beside them, in both units. */
abstract class CheckTestCase extends TestCase
{
    private const COOKED = ['-200 cook', '-100 170'];

    /** @param list<string> $lines */
    #[DataProvider('cases')]
    final public function testJudges(
        string $rule,
        string $expected,
        array $lines,
        string $asOf,
        string $product = 'beef cut',
    ): void {
        $assessment = Story::of(...$lines)->about($product)->assess($asOf);
        $found = array_filter($assessment->findings, static fn (Finding $finding): bool => $finding->rule === $rule);
        $verdict = $assessment->rulesJudged[$rule] ?? null;
        self::assertSame($expected, $verdict->value ?? ($found === [] ? 'none' : 'caution'));
        foreach ($found as $finding) {
            self::assertNotSame('', $finding->citation);
            self::assertSame($verdict !== null, $finding->isJudged());
        }
    }

    /**
     * @return iterable<string, array{0: string, 1: string, 2: list<string>, 3: string, 4?: string}> rule, verdict,
     *     record, moment, product
     */
    abstract public static function cases(): iterable;

    /** @return list<string> a record of food that was cooked through, with what follows */
    protected static function cooked(string ...$lines): array
    {
        return [...self::COOKED, ...array_values($lines)];
    }

    /**
     * @param list<string> $lines
     *
     * @return list<string> what the findings of a rule leave to do
     */
    protected static function options(string $rule, array $lines, string $asOf, string $product = 'beef cut'): array
    {
        $options = [];
        foreach (Story::of(...$lines)->about($product)->assess($asOf)->findings as $finding) {
            $options = $finding->rule === $rule ? [...$options, ...$finding->options] : $options;
        }

        return $options;
    }
}
