<?php

declare(strict_types=1);

namespace Verjuicer\Tests\Core\Forecast;

use PHPUnit\Framework\Attributes\DataProvider;
use PHPUnit\Framework\TestCase;
use Verjuicer\Core\Food\Holding;
use Verjuicer\Core\Forecast\CoolingLimits;
use Verjuicer\Core\Forecast\CoolingOdds;

/** How deep meat may lie to be cooled in time. */
final class CoolingOddsTest extends TestCase
{
    #[DataProvider('methods')]
    public function testDeeperCoveredAndWarmerIsNeverLikelier(Holding $method): void
    {
        $gates = self::gates();
        $before = 1.0;
        foreach ([0.01, 0.025, 0.05, 0.1] as $depth) {
            $odds = CoolingOdds::of($method, $depth, false, null, $gates);
            self::assertLessThanOrEqual($before, $odds->both, "$depth m");
            self::assertLessThanOrEqual(min($odds->first, $odds->all), $odds->both);
            self::assertLessThanOrEqual($odds->both, CoolingOdds::of($method, $depth, true, null, $gates)->both);
            self::assertLessThanOrEqual(
                CoolingOdds::of($method, $depth, false, 0.0, $gates)->both,
                CoolingOdds::of($method, $depth, false, 4.0, $gates)->both,
            );
            $before = $odds->both;
        }
        self::assertEquals(
            CoolingOdds::of($method, 0.03, false, null, $gates),
            CoolingOdds::of($method, 0.03, false, null, $gates),
            'the same question has the same answer',
        );
    }

    /** @return iterable<string, array{Holding}> */
    public static function methods(): iterable
    {
        foreach (CoolingOdds::methods() as $method) {
            yield $method->value => [$method];
        }
    }

    public function testWhatCannotPassDoesNot(): void
    {
        $gates = self::gates();
        self::assertSame(0.0, CoolingOdds::of(Holding::Counter, 0.01, false, null, $gates)->all, 'a room is too warm');
        self::assertNull(CoolingOdds::deepest(Holding::Counter, false, null, $gates));
        self::assertSame(0.0, CoolingOdds::of(Holding::WalkIn, 0.1, false, null, $gates)->both, 'ten centimetres');
        self::assertSame(0.0, CoolingOdds::of(Holding::WalkIn, 0.02, false, 9.0, $gates)->all, 'a warm walk-in');
    }

    public function testTheDeepestPassesAndTheNextDoesNot(): void
    {
        $gates = self::gates();
        $deepest = CoolingOdds::deepest(Holding::BlastChiller, false, null, $gates);
        self::assertNotNull($deepest);
        $method = Holding::BlastChiller;
        $passes = static fn (float $at): float => CoolingOdds::of($method, $at, false, null, $gates)->both;
        self::assertGreaterThanOrEqual(CoolingOdds::ENOUGH, $passes($deepest));
        $deeper = array_values(
            array_filter(CoolingOdds::DEPTHS, static fn (float $one): bool => $one > 100 * $deepest + 0.01),
        );
        self::assertLessThan(CoolingOdds::ENOUGH, $passes(($deeper[0] ?? 0.0) / 100));
    }

    /** Meat by other numerics, dry, in the middle of what is said of a chiller. */
    public function testAgreesWithMeatOfItsOwn(): void
    {
        foreach ([[0.02, true], [0.08, false]] as [$depth, $passes]) {
            $meat = new Meat(Meat::SLAB, $depth / 1.6, 57.2);
            $meat->stay(7200, -1.5, 30.0);
            $first = $meat->core() <= 21.1;
            $meat->stay(14_400, -1.5, 30.0);
            self::assertSame($passes, $first && $meat->core() <= 5.0);
            $odds = CoolingOdds::of(Holding::BlastChiller, $depth, false, null, self::gates());
            self::assertSame($passes, $odds->both > 0.5);
        }
    }

    private static function gates(): CoolingLimits
    {
        return new CoolingLimits(57.2, 21.1, 5.0, 7200, 21_600);
    }
}
