<?php

declare(strict_types=1);

namespace Verjuicer\Tests\Core\Measure;

use PHPUnit\Framework\Attributes\DataProvider;
use PHPUnit\Framework\TestCase;
use Verjuicer\Core\Measure\Instant;
use Verjuicer\Core\Measure\TimeZone;
use Verjuicer\Core\Measure\UnknownTimeZone;

/** Zones that are listed, and no abbreviation that would silently stand for UTC. */
final class TimeZoneTest extends TestCase
{
    public function testKnowsSummerTimeOfEveryListedZone(): void
    {
        $noon = Instant::parse('2026-07-01T12:00:00Z');
        foreach (\DateTimeZone::listIdentifiers() as $name) {
            $expected = (new \DateTimeImmutable('2026-07-01T12:00:00Z'))->setTimezone(new \DateTimeZone($name));
            self::assertSame($expected->getOffset(), TimeZone::named($name)->offsetAt($noon), $name);
        }
    }

    #[DataProvider('unlisted')]
    public function testRefusesWhatIsNotListed(string $name): void
    {
        $this->expectException(UnknownTimeZone::class);
        TimeZone::named($name);
    }

    /** @return iterable<array{string}> */
    public static function unlisted(): iterable
    {
        foreach (['CET', 'EET', 'MET', 'EST', 'MST', 'HST', 'leapseconds', 'denver', '', '../etc/passwd'] as $name) {
            yield [$name];
        }
    }

    #[DataProvider('typed')]
    public function testUnderstandsWhatSomebodyTypes(string $given, string $name): void
    {
        self::assertSame($name, TimeZone::parse($given)->name);
    }

    /** @return iterable<array{string, string}> */
    public static function typed(): iterable
    {
        yield ['America/Denver', 'America/Denver'];
        yield ['america/denver', 'America/Denver'];
        yield ['Zürich', 'Europe/Zurich'];
        yield ['new york', 'America/New_York'];
        yield [' São Paulo ', 'America/Sao_Paulo'];
        yield ['utc', 'UTC'];
    }

    public function testNamesTheNearest(): void
    {
        try {
            TimeZone::parse('Dener');
            self::fail('it is none');
        } catch (UnknownTimeZone $problem) {
            self::assertContains('America/Denver', $problem->nearest);
            self::assertStringContainsString('America/Denver', $problem->getMessage());
        }
    }
}
