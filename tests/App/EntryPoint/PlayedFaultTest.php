<?php

declare(strict_types=1);

namespace Verjuicer\Tests\App\EntryPoint;

use PHPUnit\Framework\Attributes\DataProvider;
use PHPUnit\Framework\TestCase;
use Verjuicer\App\EntryPoint\Simulate\SimulatedFault;
use Verjuicer\App\EntryPoint\Simulate\SimulatedFaultName;

/** What goes wrong in the played kitchen, as it is asked for. It is 20:00 there. */
final class PlayedFaultTest extends TestCase
{
    /** @return iterable<string, array{string, string, int, int}> said; of what; minutes from now, and for how long */
    public static function faults(): iterable
    {
        yield 'now, for a day' => ['dead-oven:Drum', 'Drum', 0, 1440];
        yield 'of all' => ['power-cut', '', 0, 1440];
        yield 'in a while, for a while' => ['door-open:walk-in+5/40', 'walk-in', 5, 40];
        yield 'at night' => ['dead-oven:Drum@02:10', 'Drum', 370, 1440];
        yield 'later today' => ['probe-out:P5@21:30/15', 'P5', 90, 15];
        yield 'this very minute' => ['fuel-out:Drum@20:00', 'Drum', 0, 1440];
    }

    #[DataProvider('faults')]
    public function testItIsOnFromThenForSoLong(string $said, string $what, int $from, int $minutes): void
    {
        [$now, $zone] = self::evening();
        $fault = SimulatedFault::read($said, $now, $zone);
        self::assertNotNull($fault);
        $expected = [$what, $now + 60 * $from, $now + 60 * ($from + $minutes)];
        self::assertSame($expected, [$fault->what, $fault->from, $fault->until]);
        self::assertFalse($fault->isOn($fault->from - 1));
        self::assertTrue($fault->isOn($fault->from));
        self::assertFalse($fault->isOn($fault->until));
        self::assertTrue($fault->isOf(strtoupper($what)));
        self::assertSame($what === '', $fault->isOf('another'));
    }

    public function testAFaultOfOneThingIsOfNoOther(): void
    {
        [$now, $zone] = self::evening();
        $faults = [SimulatedFault::read('wrong-clock:W1', $now, $zone) ?? self::fail('it can be read')];
        self::assertTrue(SimulatedFault::isAnyOn($faults, SimulatedFaultName::WrongClock, $now, 'W1'));
        self::assertFalse(SimulatedFault::isAnyOn($faults, SimulatedFaultName::WrongClock, $now, 'L1'));
        self::assertFalse(SimulatedFault::isAnyOn($faults, SimulatedFaultName::NetworkGone, $now, 'W1'));
        $all = [SimulatedFault::read('wrong-clock', $now, $zone) ?? self::fail('it can be read')];
        self::assertTrue(SimulatedFault::isAnyOn($all, SimulatedFaultName::WrongClock, $now, 'L1'));
    }

    /** @return iterable<array{string}> */
    public static function nothing(): iterable
    {
        yield [''];
        yield ['earthquake'];
        yield ['dead-oven:Drum@2:10'];
        yield ['dead-oven:Drum+soon'];
        yield ['dead-oven:Drum/'];
    }

    #[DataProvider('nothing')]
    public function testWhatCannotBeReadIsNone(string $said): void
    {
        self::assertNull(SimulatedFault::read($said, ...self::evening()));
    }

    /** @return array{int, \DateTimeZone} */
    private static function evening(): array
    {
        $zone = new \DateTimeZone('America/Denver');

        return [(new \DateTimeImmutable('2026-05-02 20:00', $zone))->getTimestamp(), $zone];
    }
}
