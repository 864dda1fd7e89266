<?php

declare(strict_types=1);

namespace Verjuicer\Tests\App\Platform;

use PHPUnit\Framework\Attributes\DataProvider;
use PHPUnit\Framework\Attributes\TestWith;
use PHPUnit\Framework\TestCase;
use Symfony\Component\HttpFoundation\Request;
use Verjuicer\App\Platform\Form\FormInput;
use Verjuicer\App\Platform\Wording\MeasureFormatter;
use Verjuicer\App\Platform\Wording\UnitSystem;
use Verjuicer\Core\Food\Oven;
use Verjuicer\Core\Measure\TemperatureUnit;

/** What people type, read as what it should be; what is not, is named and stays typed. */
final class FormInputTest extends TestCase
{
    /** @param array<string, string> $typed */
    #[TestWith([['at' => '2026-12-05', 'at_time' => '6:30 pm'], '2026-12-05T18:30', null])]
    #[TestWith([['at' => '2026-12-05', 'at_time' => '18:30'], '2026-12-05T18:30', null])]
    #[TestWith([['at' => '2026-12-05T18:30'], '2026-12-05T18:30', null])]
    #[TestWith([['at' => '', 'at_time' => ''], '', null])]
    #[TestWith([['at' => '', 'at_time' => '6 pm'], '', 'at'])]
    #[TestWith([['at' => '2026-12-05', 'at_time' => ''], '', 'at_time'])]
    #[TestWith([['at' => '2026-12-05', 'at_time' => 'supper'], '', 'at_time'])]
    public function testADayAndATimeAreOneMoment(array $typed, string $moment, ?string $refused): void
    {
        $input = FormInput::filled($typed);
        self::assertSame($moment, $input->wallMinute('at'));
        self::assertSame($refused === null ? [] : [$refused], array_keys($input->problems));
    }

    #[DataProvider('grams')]
    public function testReadsWeights(string $typed, string $unit, ?int $grams, ?string $problem): void
    {
        $input = self::input(['w' => $typed, 'w_unit' => $unit]);
        self::assertSame($grams, $input->grams('w'));
        self::assertSame($problem, ($input->problems['w'] ?? null)?->getMessage());
    }

    /** @return iterable<array{string, string, int|null, string|null}> */
    public static function grams(): iterable
    {
        yield ['2.3', 'kg', 2300, null];
        yield ['2,3', 'kg', 2300, null];
        yield [' 4.4999 ', 'kg', 4499, null];
        yield ['4.5', 'kg', 4500, null];
        yield ['0.29', 'kg', 290, null];
        yield ['1', 'lb', 453, null];
        yield ['9.92', 'lb', 4499, null];
        yield ['10', 'stone', 10000, null];
        yield ['', 'kg', null, null];
        yield ['0', 'kg', null, 'form.problem.weight'];
        yield ['0.0004', 'kg', null, 'form.problem.weight'];
        yield ['-1', 'kg', null, 'form.problem.weight'];
        yield ['heavy', 'kg', null, 'form.problem.weight'];
        yield ['1e9', 'kg', null, 'form.problem.weight'];
        yield ['1.2.3', 'kg', null, 'form.problem.weight'];
    }

    public function testAWeightTypedAsItWasShownStaysWhatItIs(): void
    {
        foreach ([1, 85, 150, 2300, 2301, 9071, 45359] as $grams) {
            $shown = (new MeasureFormatter(null, new HabitsOf(UnitSystem::UsCustomary)))->weight($grams);
            self::assertSame($grams, self::input(['w' => $shown])->grams('w', known: $grams), $shown);
            self::assertNotSame($grams, self::input(['w' => "$shown 1 oz"])->grams('w', known: $grams));
        }
        self::assertSame(151, self::input(['w' => '151', 'w_unit' => 'g'])->grams('w', known: 150));
    }

    #[DataProvider('lengths')]
    public function testReadsLengthsInAnyUnit(string $typed, string $unit, ?float $millimeters): void
    {
        $input = self::input(['d' => $typed, 'd_unit' => $unit]);
        $read = $input->millimeters('d', 1, 1000, 'portion.problem.depth');
        self::assertEqualsWithDelta($millimeters, $read, 1e-9);
        self::assertSame($millimeters === null && $typed !== '', isset($input->problems['d']));
    }

    /** @return iterable<array{string, string, float|null}> */
    public static function lengths(): iterable
    {
        yield ['2', 'in', 50.8];
        yield ['2 in', 'cm', 50.8];
        yield ['2"', 'cm', 50.8];
        yield ['2″', 'cm', 50.8];
        yield ['1 1/2 in', 'cm', 38.1];
        yield ['1½', 'in', 38.1];
        yield ['½ inch', 'cm', 12.7];
        yield ['3/4', 'in', 19.05];
        yield ['5', 'cm', 50.0];
        yield ['5,5 cm', 'in', 55.0];
        yield ['50 mm', 'in', 50.0];
        yield ['1 ft 2 in', 'cm', 355.6];
        yield ['', 'in', null];
        yield ['deep', 'in', null];
        yield ['0.5 mm', 'in', null];
        yield ['4 ft', 'in', null];
        yield ['2 lb', 'in', null];
        yield ['2 in deep', 'in', null];
        yield ['-2', 'in', null];
    }

    #[DataProvider('times')]
    public function testReadsATimeOfDayOnEitherClock(string $typed, ?string $time): void
    {
        $input = self::input(['t' => $typed]);
        self::assertSame($time, $input->timeOfDay('t', 'site.problem.hour'));
        self::assertSame($time === null, isset($input->problems['t']));
    }

    /** @return iterable<array{string, string|null}> */
    public static function times(): iterable
    {
        yield ['18:00', '18:00'];
        yield ['0:05', '00:05'];
        yield ['6:00 pm', '18:00'];
        yield ['6 PM', '18:00'];
        yield ['12:30 a.m.', '00:30'];
        yield ['12 pm', '12:00'];
        yield ['24:00', null];
        yield ['13:00 pm', null];
        yield ['0 am', null];
        yield ['18', null];
        yield ['6:60', null];
        yield ['', null];
    }

    #[DataProvider('wholes')]
    public function testReadsWholeNumbersWithinTheirEnds(string $typed, ?int $number, ?string $problem): void
    {
        $input = self::input(['n' => $typed]);
        self::assertSame($number, $input->whole('n', 1, 500));
        self::assertSame($problem, ($input->problems['n'] ?? null)?->getMessage());
    }

    /** @return iterable<array{string, int|null, string|null}> */
    public static function wholes(): iterable
    {
        yield ['1', 1, null];
        yield [' 500 ', 500, null];
        yield ['', null, null];
        yield ['0', null, 'form.problem.whole'];
        yield ['501', null, 'form.problem.whole'];
        yield ['-5', null, 'form.problem.whole'];
        yield ['2.0', null, 'form.problem.whole'];
        yield ['١', null, 'form.problem.whole'];
        yield ['99999999999999999999', null, 'form.problem.whole'];
    }

    #[DataProvider('temperatures')]
    public function testReadsTemperaturesInTheirUnit(string $typed, ?string $read, ?string $problem): void
    {
        $input = self::input(['t' => $typed]);
        $temperature = $input->temperature('t', TemperatureUnit::Fahrenheit);
        self::assertSame($read, $temperature === null ? null : $temperature->number().$temperature->unit->value);
        self::assertSame($problem, ($input->problems['t'] ?? null)?->getMessage());
    }

    /** @return iterable<array{string, string|null, string|null}> */
    public static function temperatures(): iterable
    {
        yield ['38.5', '38.5F', null];
        yield ['3,5c', '3.5C', null];
        yield ['', null, null];
        yield ['38.55', null, 'form.problem.temp'];
        yield ['1001', null, 'form.problem.temp'];
        yield ['cold', null, 'form.problem.temp'];
    }

    #[DataProvider('days')]
    public function testReadsDays(string $typed, ?string $day): void
    {
        $input = self::input(['d' => $typed]);
        self::assertSame($day, $input->day('d'));
        self::assertSame($typed !== '' && $day === null, isset($input->problems['d']));
    }

    /** @return iterable<array{string, string|null}> */
    public static function days(): iterable
    {
        yield ['2026-11-25', '2026-11-25'];
        yield ['2028-02-29', '2028-02-29'];
        yield ['', null];
        yield ['2026-02-29', null];
        yield ['25.11.2026', null];
        yield ["2026-11-25\n", '2026-11-25'];
        yield ['2026-13-01', null];
    }

    public function testMoneyIsHundredths(): void
    {
        self::assertSame(
            [12345, 1, null],
            [
                self::input(['p' => '123.45'])->cents('p'),
                self::input(['p' => '0.009'])->cents('p'),
                self::input([])->cents('p'),
            ],
        );
    }

    public function testRequiredFieldsSayTheyAre(): void
    {
        $input = self::input(['text' => '  ', 'long' => str_repeat('é', 201), 'oven' => 'kiln']);
        $input->text('text', true);
        $input->text('long');
        $input->choice('oven', Oven::class, true);
        $input->choice('none', Oven::class, true);
        $input->whole('count', 1, 5, true);
        $input->id();
        self::assertSame(
            [
                'text' => 'form.problem.required',
                'long' => 'form.problem.too_long',
                'oven' => 'form.problem.choice',
                'none' => 'form.problem.required',
                'count' => 'form.problem.required',
                'form' => 'entry.problem.no_id',
            ],
            array_map(
                static fn (
                    \Symfony\Component\Translation\TranslatableMessage $problem,
                ): string => $problem->getMessage(),
                $input->problems,
            ),
        );
        self::assertFalse($input->isGood());
        $input->refuse('text', 'another');
        self::assertSame(
            'form.problem.required',
            $input->problems['text']->getMessage(),
            'the first problem of a field is the one told',
        );
    }

    /** A list where a text belongs is no answer, and breaks no page. */
    public function testTakesTextsAlone(): void
    {
        $sent = ['name' => ['a', 'b'], 'place' => 'cellar', 'deep' => ['a' => ['b' => 'c']]];
        $input = FormInput::of(Request::create('/', 'POST', $sent));
        self::assertSame(['place' => 'cellar'], $input->typed->all());
        self::assertSame(
            ['', 'cellar'],
            [$input->text('name'), FormInput::asked(Request::create('/', 'GET', $sent))->text('place')],
        );
    }

    /** @param array<string, string> $typed */
    private static function input(array $typed): FormInput
    {
        return FormInput::filled($typed);
    }
}
