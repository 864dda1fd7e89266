<?php

declare(strict_types=1);

namespace Verjuicer\Tests\App\Platform;

use PHPUnit\Framework\Attributes\DataProvider;
use PHPUnit\Framework\TestCase;
use Symfony\Component\Translation\LocaleSwitcher;
use Verjuicer\App\Platform\Form\FormInput;
use Verjuicer\App\Platform\Wording\MeasureFormatter;
use Verjuicer\App\Platform\Wording\UnitSystem;
use Verjuicer\Core\Measure\Instant;
use Verjuicer\Core\Measure\LocalDate;
use Verjuicer\Core\Measure\Span;
use Verjuicer\Core\Measure\Temperature;
use Verjuicer\Core\Measure\TemperatureUnit;
use Verjuicer\Core\Measure\Threshold;
use Verjuicer\Core\Measure\TimeZone;

/** Figures as people read them: short, exact, in the site's unit and on its clock. */
final class MeasureFormatterTest extends TestCase
{
    #[DataProvider('spans')]
    public function testWritesSpans(int $seconds, string $words): void
    {
        self::assertSame($words, (new MeasureFormatter())->span(Span::ofSeconds($seconds)));
    }

    /** @return iterable<array{int, string}> */
    public static function spans(): iterable
    {
        yield [0, '0 s'];
        yield [15, '15 s'];
        yield [119, '119 s'];
        yield [120, '2 min'];
        yield [134, '2 min 14 s'];
        yield [3600, '1 h'];
        yield [3659, '1 h'];
        yield [6300, '1 h 45 min'];
        yield [-6300, '1 h 45 min'];
        yield [172_799, '47 h 59 min'];
        yield [172_800, '2 d'];
        yield [180_000, '2 d 2 h'];
    }

    public function testATimeOfAnotherDayStandsInASentenceOfEachLanguage(): void
    {
        $at = Instant::ofEpoch(1_795_000_000);
        $formatter = static fn (string $language): MeasureFormatter => new MeasureFormatter(
            null,
            null,
            new LocaleSwitcher($language, []),
        );
        $words = static fn (string $language): string => $formatter($language)
            ->instant($at, TimeZone::named('America/Denver'), $at->plus(Span::ofHours(48)));
        self::assertSame('Wed 18 Nov 04:06', $words('en'));
        self::assertSame('04:06 del mié 18 nov', $words('es'));
    }

    public function testEachSystemWritesItsOwnUnits(): void
    {
        [$us, $metric] = [
            new MeasureFormatter(null, new HabitsOf(UnitSystem::UsCustomary)),
            new MeasureFormatter(null, new HabitsOf(UnitSystem::Metric)),
        ];
        self::assertSame(['2 in', '5.1 cm'], [$us->length(50.8), $metric->length(50.8)]);
        // A depth that food may have at most is never rounded up.
        self::assertSame(['1.9 in', '5 cm'], [$us->lengthLimit(50.7), $metric->lengthLimit(50.7)]);
        self::assertSame(['2 in', '5 cm'], [$us->lengthLimit(50.8), $metric->lengthLimit(50.8)]);
        self::assertSame(['5,280 ft', '1,610 m'], [$us->elevation(1610), $metric->elevation(1610)]);
        self::assertSame(['-280 ft', '-86 m'], [$us->elevation(-86), $metric->elevation(-86)]);
        self::assertSame(['200 lb', '91 kg'], [$us->capacity(91), $metric->capacity(91)]);
        self::assertSame(['29.91 inHg', '1013 hPa'], [$us->pressure(1013), $metric->pressure(1013)]);
        $day = LocalDate::ofIso('2026-12-01') ?? self::fail();
        self::assertSame(['Tue Dec 1, 2026', 'Tue 1 Dec 2026'], [$us->date($day), $metric->date($day)]);
        self::assertSame(['0.4 oz/lb', '25 g/kg'], [$us->dose(25), $metric->dose(25)]);
        self::assertSame(['0.09 oz', '2.5 g'], [$us->weight(2.5), $metric->weight(2.5)]);
    }

    #[DataProvider('pounds')]
    public function testPoundsReadAsTheyWereTyped(string $typed, string $shown): void
    {
        $figures = new MeasureFormatter(null, new HabitsOf(UnitSystem::UsCustomary));
        $grams = FormInput::filled(['weight' => $typed, 'weight_unit' => 'lb'])->grams('weight');
        self::assertNotNull($grams);
        self::assertSame($shown, $figures->weight($grams));
        $at = Instant::parse('2026-11-24T21:05:00Z');
        self::assertSame('2:05 pm', $figures->time($at, TimeZone::named('America/Denver')));
        self::assertSame(['12a', '2p'], [$figures->hour(0), $figures->hour(14 * 3600)]);
    }

    /** @return iterable<array{string, string}> */
    public static function pounds(): iterable
    {
        yield ['5 lb 3 oz', '5 lb 3 oz'];
        yield ['5', '5 lb'];
        yield ['2.5', '2 lb 8 oz'];
        yield ['3 oz', '3 oz'];
        yield ['11.7 oz', '11.7 oz'];
        yield ['20 lb 15.9 oz', '20 lb 15.9 oz'];
        yield ['2.3 kg', '5 lb 1.1 oz'];
        yield ['300 g', '10.6 oz'];
    }

    #[DataProvider('weights')]
    public function testWritesWeights(int $grams, string $words): void
    {
        self::assertSame($words, (new MeasureFormatter())->weight($grams));
    }

    /** @return iterable<array{int, string}> */
    public static function weights(): iterable
    {
        yield [0, '0 g'];
        yield [999, '999 g'];
        yield [1000, '1 kg'];
        yield [2300, '2.3 kg'];
        yield [2345, '2.35 kg'];
        yield [12_000, '12 kg'];
    }

    #[DataProvider('moments')]
    public function testTellsTheDayOnlyWhereItIsAnother(string $instant, string $told, string $words): void
    {
        self::assertSame(
            $words,
            (new MeasureFormatter())->instant(
                Instant::parse($instant),
                TimeZone::named('America/Denver'),
                Instant::parse($told),
            ),
        );
    }

    /** @return iterable<string, array{string, string, string}> */
    public static function moments(): iterable
    {
        yield 'the same day' => ['2026-11-25T18:05:00Z', '2026-11-25T20:00:00Z', '11:05'];
        yield 'the same day in UTC, another on the wall' => [
            '2026-11-25T06:30:00Z',
            '2026-11-25T08:00:00Z',
            'Tue 24 Nov 23:30',
        ];
        yield 'another day in UTC, the same on the wall' => ['2026-11-25T22:00:00Z', '2026-11-26T03:00:00Z', '15:00'];
        yield 'in the hour that comes twice' => ['2026-11-01T08:30:00Z', '2026-11-01T12:00:00Z', '01:30'];
        yield 'ahead' => ['2026-11-26T18:05:00Z', '2026-11-25T20:00:00Z', 'Thu 26 Nov 11:05'];
    }

    public function testWritesLimitsAsTheCodePrintsThem(): void
    {
        $figures = new MeasureFormatter();
        $hot = Threshold::ofPair(Temperature::fahrenheit('135'), Temperature::celsius('57'));
        self::assertSame(
            ['135 °F', '57 °C'],
            [
                $figures->threshold($hot, TemperatureUnit::Fahrenheit),
                $figures->threshold($hot, TemperatureUnit::Celsius),
            ],
        );
        self::assertSame('54.4 °C', $figures->temperature(Temperature::celsius('54.4')));
        self::assertSame(
            'Wed 25 Nov 2026',
            $figures->date(
                LocalDate::ofInstant(Instant::parse('2026-11-26T03:00:00Z'), TimeZone::named('America/Denver')),
            ),
        );
        self::assertSame(
            '20:00',
            $figures->time(Instant::parse('2026-11-26T03:00:00Z'), TimeZone::named('America/Denver')),
        );
    }
}
