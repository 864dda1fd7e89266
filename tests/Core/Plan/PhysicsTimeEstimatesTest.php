<?php

declare(strict_types=1);

namespace Verjuicer\Tests\Core\Plan;

use PHPUnit\Framework\TestCase;
use Verjuicer\Core\Food\Animal;
use Verjuicer\Core\Food\Form;
use Verjuicer\Core\Food\Holding;
use Verjuicer\Core\Food\Integrity;
use Verjuicer\Core\Measure\Weight;
use Verjuicer\Core\Plan\HeatPlan;
use Verjuicer\Core\Plan\PhysicsTimeEstimates;
use Verjuicer\Core\Record\RecordedProduct;

final class PhysicsTimeEstimatesTest extends TestCase
{
    private const HOUR = 3600;

    public function testHotterThinnerWrappedIsSooner(): void
    {
        $times = new PhysicsTimeEstimates(FixedTimes::gates(), 1610);
        $likely = static fn (int $grams, HeatPlan $heat): int => (int) $times->cook(self::lamb($grams), $heat)
            ->done->by(0.5);
        $usual = $likely(2300, new HeatPlan(121.0, 92.0));
        self::assertGreaterThan(4 * self::HOUR, $usual);
        self::assertLessThan(11 * self::HOUR, $usual);
        self::assertLessThan($usual, $likely(2300, new HeatPlan(149.0, 92.0)));
        self::assertLessThan($usual, $likely(1200, new HeatPlan(121.0, 92.0)));
        self::assertLessThan($usual, $likely(2300, new HeatPlan(121.0, 80.0)));
        $foil = $times->cook(self::lamb(2300), new HeatPlan(121.0, 92.0, 'foil', 74.0));
        self::assertLessThan($usual, $foil->done->by(0.5));
        self::assertLessThan($foil->done->by(0.5), $foil->wrapped?->by(0.5));
        $clock = $times->cook(self::lamb(2300), new HeatPlan(121.0, 92.0, 'foil', null, 3 * self::HOUR));
        self::assertSame(3 * self::HOUR, $clock->wrapped?->by(0.1));
        self::assertEquals($foil, $times->cook(self::lamb(2300), new HeatPlan(121.0, 92.0, 'foil', 74.0)), 'always so');
    }

    public function testABoxKeepsItHotForLongerThanARackAndACabinetForAsLongAsItIsAsked(): void
    {
        $times = new PhysicsTimeEstimates(FixedTimes::gates(), 1610);
        $stays = static fn (Holding $place): ?int => $times->hot(self::lamb(2300), $place, 92.0)->by(0.1);
        self::assertGreaterThan(1800, $stays(Holding::Rack));
        self::assertGreaterThan($stays(Holding::Rack), $stays(Holding::Box) ?? \PHP_INT_MAX);
        self::assertNull($stays(Holding::Cabinet));
        self::assertSame(0, $times->hot(self::lamb(2300), Holding::Cabinet, 52.0)->by(0.5), 'never hot');
    }

    private static function lamb(int $grams): RecordedProduct
    {
        return new RecordedProduct(
            'Lamb shoulder',
            Animal::Lamb,
            Form::Roast,
            Integrity::Intact,
            Weight::ofGrams($grams),
            1,
        );
    }
}
