<?php

declare(strict_types=1);

namespace Verjuicer\Tests\App\Platform;

use PHPUnit\Framework\Attributes\DataProvider;
use PHPUnit\Framework\TestCase;
use Verjuicer\App\Platform\SimulatedClock;

final class SimulatedClockTest extends TestCase
{
    /** @return iterable<array{string}> */
    public static function nothing(): iterable
    {
        yield [''];
        yield ['1,2'];
        yield ['now,2,3'];
        yield ['1,2,-3'];
        yield ["1,2,3\n"];
    }

    #[DataProvider('nothing')]
    public function testWhatSaysNothingIsNoClock(string $said): void
    {
        self::assertNull(SimulatedClock::of($said));
    }

    public function testItGoesFasterFromItsBeginning(): void
    {
        $clock = SimulatedClock::of(\sprintf('%.3F,1777723200,600', microtime(true) - 10));
        self::assertNotNull($clock);
        self::assertEqualsWithDelta(1_777_723_200 + 6000, $clock->now()->getTimestamp(), 600);
        self::assertSame('UTC', $clock->now()->getTimezone()->getName());
        self::assertSame('America/Denver', $clock->withTimeZone('America/Denver')->now()->getTimezone()->getName());
        $before = microtime(true);
        $clock->sleep(6);
        self::assertLessThan(1.0, microtime(true) - $before);
    }
}
