<?php

declare(strict_types=1);

namespace Verjuicer\Tests\Core\Forecast;

use PHPUnit\Framework\Attributes\DataProvider;
use PHPUnit\Framework\TestCase;
use Verjuicer\Core\Food\Holding;
use Verjuicer\Core\Forecast\Belief\ColdAir;
use Verjuicer\Core\Forecast\Belief\CookRoute;
use Verjuicer\Core\Forecast\Belief\Leg;

/** What readings of cold air are taken to say of how it goes on. */
final class ColdAirTest extends TestCase
{
    /**
     * @param list<array{int, float}> $read minutes and °C
     * @param float|null $ends °C it comes to, by the likeliest; null where nothing is said
     */
    #[DataProvider('rooms')]
    public function testAirGoesOnAsItsReadingsSay(Holding $where, array $read, ?float $ends, float $give): void
    {
        $air = array_map(static fn (array $one): array => [60 * $one[0], $one[1]], $read);
        $cold = ColdAir::of(new Leg(0, $where, $air, null, false, null));
        if ($ends === null) {
            self::assertNull($cold);

            return;
        }
        self::assertNotNull($cold);
        [$last, $celsius] = $air[\count($air) - 1];
        self::assertSame(0.0, $cold->since($last, 1.0), 'as it was read, when it was');
        self::assertEqualsWithDelta($ends, $celsius + $cold->since($last + 86_400, 0.0), $give);
        self::assertGreaterThan($cold->since($last + 86_400, -1.0), $cold->since($last + 86_400, 1.0));
    }

    /** @return iterable<string, array{Holding, list<array{int, float}>, float|null, float}> */
    public static function rooms(): iterable
    {
        $room = Holding::WalkIn;
        yield 'a load that fades' => [$room, [[5, 8.0], [60, 6.2], [120, 4.8]], 3.2, 0.5];
        yield 'a room that is kept at three' => [$room, [[5, 3.0], [90, 3.0], [300, 3.1], [500, 2.9]], 2.9, 0.3];
        yield 'one that is broken' => [$room, [[5, 9.0], [120, 9.0], [300, 9.0], [600, 9.0]], 8.5, 0.7];
        yield 'a door that was open' => [$room, [[5, 3.0], [90, 3.0], [300, 3.0], [480, 5.0]], 3.7, 0.5];
        yield 'once, warm, at the beginning' => [$room, [[5, 7.0]], 3.9, 0.6];
        yield 'a chiller' => [Holding::BlastChiller, [[5, 2.0], [60, -4.0]], -5.5, 1.5];
        yield 'as it is kept, as somebody said' => [$room, [[intdiv(CookRoute::ALWAYS, 60) + 1, 3.0]], null, 0.0];
        yield 'on the counter' => [Holding::Counter, [[5, 21.0]], null, 0.0];
        yield 'nobody read it' => [$room, [], null, 0.0];
    }
}
