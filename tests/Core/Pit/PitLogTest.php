<?php

declare(strict_types=1);

namespace Verjuicer\Tests\Core\Pit;

use PHPUnit\Framework\Attributes\DataProvider;
use PHPUnit\Framework\TestCase;
use Verjuicer\Core\Food\PitSign;
use Verjuicer\Core\Measure\Temperature;
use Verjuicer\Core\Measure\TemperatureUnit;
use Verjuicer\Core\Pit\PitEntry;
use Verjuicer\Core\Pit\PitExcursion;
use Verjuicer\Core\Pit\PitLog;
use Verjuicer\Tests\Core\Story;

/** Too hot or too cold for its set point by more than 25 °F for half an hour or more. */
final class PitLogTest extends TestCase
{
    /** @param list<string> $lines */
    #[DataProvider('pits')]
    public function testNamesStrays(string $expected, array $lines, string $asOf): void
    {
        $house = Story::rules()->house();
        $strays = self::log(...$lines)->strays($house->pitDrift, $house->pitDriftFor, Story::at($asOf));
        self::assertSame(
            $expected,
            implode(
                '; ',
                array_map(
                    static fn (PitExcursion $stray): string => \sprintf(
                        '%s %d-%d %s%s',
                        $stray->isHot ? 'hot' : 'cold',
                        ($stray->from->epoch - Story::at('0')->epoch) / 60,
                        ($stray->to->epoch - Story::at('0')->epoch) / 60,
                        $stray->worst->number(),
                        $stray->isOpen ? ' open' : '',
                    ),
                    $strays,
                ),
            ),
        );
    }

    /** @return iterable<string, array{string, list<string>, string}> */
    public static function pits(): iterable
    {
        yield 'at its set point' => ['', ['0 set 250', '10 reading 250', '60 reading 275'], '120'];
        yield 'exactly 25 off is not off' => ['', ['0 set 250', '10 reading 275', '60 reading 225'], '120'];
        yield 'a tenth more for 29 min is short' => [
            '',
            ['0 set 250', '10 reading 275.1', '39 reading 276', '50 reading 255'],
            '120',
        ];
        yield 'for 30 min it is flagged, up to where it is read back' => [
            'hot 10-50 276',
            ['0 set 250', '10 reading 275.1', '40 reading 276', '50 reading 255'],
            '120',
        ];
        yield 'two readings are needed where it came back' => [
            '',
            ['0 set 250', '10 reading 300', '90 reading 250'],
            '120',
        ];
        yield 'nobody looked again' => ['cold 10-40 200 open', ['0 set 250', '10 reading 200'], '40'];
        yield 'not yet half an hour' => ['', ['0 set 250', '10 reading 200'], '39'];
        yield 'from too hot straight to too cold' => [
            'hot 10-80 320; cold 80-120 190 open',
            ['0 set 250', '10 reading 300', '50 reading 320', '80 reading 190'],
            '120',
        ];
        yield 'a fire that is lit may be cold until it is ready' => [
            '',
            ['0 lit', '1 set 250', '10 reading 90', '50 reading 200'],
            '60',
        ];
        yield 'ready once it was read there' => [
            'cold 100-150 190 open',
            ['0 lit', '1 set 250', '10 reading 90', '60 reading 245', '100 reading 190'],
            '150',
        ];
        yield 'ready once somebody says so' => [
            'cold 60-150 190 open',
            ['0 lit', '1 set 250', '50 preheated', '60 reading 200', '100 reading 190'],
            '150',
        ];
        yield 'a new set point begins anew' => [
            '',
            ['0 set 250', '10 reading 300', '30 set 300', '60 reading 301'],
            '120',
        ];
        yield 'no fire, no set point' => ['', ['0 set 250', '5 out', '10 reading 100', '90 reading 80'], '120'];
        yield 'without a set point there is nothing to stray from' => ['', ['0 reading 100', '90 reading 400'], '120'];
        yield 'in C by 14 degrees' => [
            'hot 10-60 135.1',
            ['0 set 121c', '10 reading 135.1c', '40 reading 135.1c', '60 reading 121c'],
            '120',
        ];
        yield 'what lies ahead is not known' => [
            '',
            ['0 set 250', '10 reading 250', '130 reading 100', '170 reading 100'],
            '120',
        ];
        yield 'nothing at all' => ['', [], '0'];
    }

    public function testSaysWhatItIsSetToAndWhetherItBurns(): void
    {
        $log = self::log('0 lit', '5 set 250', '30 reading 248', '60 set 300', '90 out');
        self::assertNull($log->setAt(Story::at('4')));
        self::assertSame('250', $log->setAt(Story::at('59'))?->number());
        self::assertSame('300', $log->setAt(Story::at('60'))?->number());
        self::assertNull($log->setAt(Story::at('90')));
        self::assertTrue($log->isLitAt(Story::at('89')));
        self::assertFalse($log->isLitAt(Story::at('90')));
        self::assertSame('248', $log->lastReading(Story::at('80'))?->temp?->number());
        self::assertNull($log->lastReading(Story::at('29')));
    }

    private static function log(string ...$lines): PitLog
    {
        return new PitLog(
            array_map(static function (string $line): PitEntry {
                $words = explode(' ', $line);

                return new PitEntry(
                    Story::at($words[0]),
                    PitSign::from($words[1]),
                    isset($words[2]) ? Temperature::parse($words[2], TemperatureUnit::Fahrenheit) : null,
                );
            }, array_values($lines)),
        );
    }
}
