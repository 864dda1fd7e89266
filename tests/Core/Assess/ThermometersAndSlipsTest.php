<?php

declare(strict_types=1);

namespace Verjuicer\Tests\Core\Assess;

use PHPUnit\Framework\Attributes\DataProvider;
use PHPUnit\Framework\TestCase;
use Verjuicer\Core\Assess\Finding\Finding;
use Verjuicer\Core\Measure\Temperature;
use Verjuicer\Core\Measure\TemperatureUnit;
use Verjuicer\Core\Ruleset\ReadingContext;
use Verjuicer\Core\Ruleset\SlipReason;
use Verjuicer\Tests\Core\Story;

/** What is asked about a thermometer, and about a slip of the finger. */
final class ThermometersAndSlipsTest extends TestCase
{
    public function testNamesReadingsByAThermometerThatWasNeverChecked(): void
    {
        $rules = static fn (Story $story): array => array_column($story->assess('20')->findings, 'rule');
        self::assertContains('thermometer.unchecked', $rules(Story::of('0 cook', '10 140 T1')));
        self::assertNotContains(
            'thermometer.unchecked',
            $rules(Story::of('0 cook', '10 140 T1')->withThermometer('T1', '-10 32 32')),
        );
    }

    #[DataProvider('checksLongAgo')]
    public function testNamesAThermometerWhoseCheckIsOverdue(bool $expected, string ...$checks): void
    {
        $findings = Story::of('0 cook', '10 140 T1')->withThermometer('T1', ...$checks)->assess('20')->findings;
        $overdue = array_values(
            array_filter($findings, static fn (Finding $finding): bool => $finding->rule === 'thermometer.overdue'),
        );
        self::assertSame($expected, $overdue !== []);
        if ($expected) {
            self::assertSame('T1', $overdue[0]->values['thermometers']);
        }
    }

    /** @return iterable<string, array{0: bool, 1?: string, 2?: string}> */
    public static function checksLongAgo(): iterable
    {
        yield 'a day and a half before, to the second' => [false, '-2150 32 32'];
        yield 'a minute longer' => [true, '-2151 32 32'];
        yield 'checked only afterwards' => [true, '15 32 32'];
        yield 'an old one and a new one' => [false, '-5000 32 32', '-10 32 32'];
        yield 'never checked is another finding' => [false];
    }

    /** @param list<SlipReason> $expected */
    #[DataProvider('slips')]
    public function testAsksAboutSlips(
        array $expected,
        string $reading,
        ?string $before = null,
        string $minutes = '10',
        ?string $other = null,
        bool $isFrozen = false,
    ): void {
        $around = new ReadingContext(
            [TemperatureUnit::Fahrenheit],
            $isFrozen,
            $before === null ? null : [Temperature::fahrenheit($before), Story::at('0')],
            $other === null ? [] : [[Temperature::fahrenheit($other), Story::at('0')]],
        );
        $temp = Temperature::parse($reading, TemperatureUnit::Fahrenheit);
        $doubts = Story::rules()->house()->plausible->doubts($temp, Story::at($minutes), $around);
        self::assertSame($expected, $doubts);
    }

    /**
     * @return iterable<string, array{0: list<SlipReason>, 1: string, 2?: string|null, 3?: string, 4?: string|null,
     *     5?: bool}>
     */
    public static function slips(): iterable
    {
        yield 'plain' => [[], '203'];
        yield 'rising as meat does' => [[], '150', '140'];
        yield 'at the most: 25 and 6 a minute' => [[], '185', '100'];
        yield 'a tenth more' => [[SlipReason::Jump], '185.1', '100'];
        yield 'falling as fast' => [[SlipReason::Jump], '115', '200.1', '10'];
        yield 'a digit too many' => [[SlipReason::TooHot, SlipReason::Jump], '999', '160'];
        yield 'the pit, not the meat' => [[SlipReason::TooHot], '230.1'];
        yield 'frozen, and in no freezer' => [[SlipReason::OffFreezer, SlipReason::OtherUnit], '-5'];
        yield 'frozen, in a freezer' => [[], '-5', null, '10', null, true];
        yield 'as cold as a freezer keeps it' => [[], '0'];
        yield 'beside another spot: at the most 60 and 6 a minute' => [[], '120', null, '10', '0'];
        yield 'beside another spot, a tenth more' => [[SlipReason::FarFromOtherSpot], '120.1', null, '10', '0'];
        yield 'beside another spot, in the other unit' => [
            [SlipReason::FarFromOtherSpot, SlipReason::OtherUnit],
            '74',
            null,
            '1',
            '160',
        ];
        yield 'colder than a freezer' => [[SlipReason::TooCold], '-39'];
        yield 'Celsius typed as Fahrenheit' => [[SlipReason::Jump, SlipReason::OtherUnit], '74', '160', '1'];
        yield 'Celsius in a kitchen of Fahrenheit' => [[SlipReason::OtherUnit], '74c'];
    }
}
