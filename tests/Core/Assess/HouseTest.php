<?php

declare(strict_types=1);

namespace Verjuicer\Tests\Core\Assess;

use PHPUnit\Framework\Attributes\DataProvider;
use PHPUnit\Framework\TestCase;
use Verjuicer\Core\Assess\Finding\Finding;
use Verjuicer\Core\Measure\Temperature;
use Verjuicer\Core\Measure\TemperatureUnit;
use Verjuicer\Core\Ruleset\Doubt;
use Verjuicer\Tests\Core\Story;

/** What warns without judging: house limits, thermometers, slips of the finger. */
final class HouseTest extends TestCase
{
    /** @param list<string> $lines */
    #[DataProvider('cautions')]
    public function testCautionsWithoutJudging(string $rule, bool $expected, array $lines, string $asOf, string $product = 'beef cut'): void
    {
        $assessment = Story::of(...$lines)->about($product)->assess($asOf);
        $found = array_filter($assessment->findings, static fn (Finding $finding): bool => $finding->rule === $rule);
        self::assertSame($expected, $found !== []);
        self::assertArrayNotHasKey($rule, $assessment->rulesJudged);
        foreach ($found as $finding) {
            self::assertFalse($finding->isJudged());
            self::assertNotSame('', $finding->citation);
        }
    }

    /** @return iterable<string, array{0: string, 1: bool, 2: list<string>, 3: string, 4?: string}> */
    public static function cautions(): iterable
    {
        yield 'an hour out for prep' => ['house.prep_out', false, ['0 prep'], '60'];
        yield 'a second more' => ['house.prep_out', true, ['0 prep'], '60:01'];
        yield 'prep after the cook is no such thing' => ['house.prep_out', false, ['-60 cook', '0 prep'], '90'];
        yield 'come-up in six hours' => ['house.come_up', false, ['0 cook', '360 134', '361 135'], '400'];
        yield 'shown to take a second longer' => ['house.come_up', true, ['0 cook', '360:01 134', '361 135'], '400'];
        yield 'first read late says nothing' => ['house.come_up', false, ['0 cook', '540 203'], '600'];
        yield 'in four where injected' => ['house.come_up', true, ['-5 inject', '0 cook', '240:01 134', '241 135'], '400'];
        yield 'not there yet' => ['house.come_up', true, ['0 cook', '360:01 120'], '361'];
        yield 'not read since' => ['house.come_up', false, ['0 cook', '100 120'], '400'];
        yield 'three readings of one second' => ['house.impossible_readings', true, ['0 cook', '60 195', '60 134', '60 70'], '61'];
        yield 'a fall no meat makes' => ['house.impossible_readings', true, ['0 cook', '60 195', '65 70'], '66'];
        yield 'a fall that meat makes' => ['house.impossible_readings', false, ['0 cook', '60 195', '65 160'], '66'];
        yield 'two spots may differ' => ['house.impossible_readings', false, ['0 cook', '60 195', '60 134 @bone'], '61'];
        yield 'fish in a vacuum pack' => ['house.vacuum_pack', true, ['0 cold_hold', '10 pack method=vacuum'], '11', 'fish cut'];
        yield 'frozen fish in one' => ['house.vacuum_pack', false, ['0 freeze', '10 pack method=vacuum'], '11', 'fish cut'];
        yield 'read every two hours' => ['house.hot_hold_check', false, ['0 hot_hold', '120 140'], '240'];
        yield 'a second longer' => ['house.hot_hold_check', true, ['0 hot_hold', '120 140'], '240:01'];
        yield 'begun again once' => ['house.cooling_restarts', false, ['0 cook', '9 cool', '20 reheat for=hot_hold', '30 cool'], '40'];
        yield 'begun again twice' => ['house.cooling_restarts', true, ['0 cook', '9 cool', '20 reheat for=hot_hold', '30 cool', '40 reheat for=hot_hold'], '50'];
        yield 'four degrees apart' => ['house.thermometers_disagree', false, ['0 cook', '10 140 T1', '15 144 T2'], '20'];
        yield 'a tenth more' => ['house.thermometers_disagree', true, ['0 cook', '10 140 T1', '15 144.1 T2'], '20'];
        yield 'six minutes apart' => ['house.thermometers_disagree', false, ['0 cook', '10 140 T1', '16 150 T2'], '20'];
        yield 'another spot' => ['house.thermometers_disagree', false, ['0 cook', '10 140 T1', '11 150 @flat T2'], '20'];
        yield 'injected, and the left-over not settled' => ['house.raw_leftover', true, ['0 inject', '5 cook'], '20'];
        yield 'settled' => ['house.raw_leftover', false, ['0 inject', '2 action finding=house.raw_leftover', '5 cook'], '20'];
        yield 'an action about something else' => ['house.raw_leftover', true, ['0 inject', '2 action finding=cook', '5 cook'], '20'];
        yield 'spritzed after it was settled' => ['house.raw_leftover', true, ['0 inject', '2 action finding=house.raw_leftover', '5 cook', '9 spritz'], '20'];
        yield 'settled ahead of the moment' => ['house.raw_leftover', true, ['0 inject', '30 action finding=house.raw_leftover'], '20'];
        yield 'only seasoned' => ['house.raw_leftover', false, ['0 season', '5 cook'], '20'];
        yield 'a vacuum pack for 48 h' => ['house.vacuum_pack', false, ['0 cold_hold', '10 pack method=vacuum'], '2890'];
        yield 'in it a second longer' => ['house.vacuum_pack', true, ['0 cold_hold', '10 pack method=vacuum'], '2890:01'];
        yield 'another pack is none' => ['house.vacuum_pack', false, ['0 cold_hold', '10 pack method=tray'], '9000'];
        yield 'under an approved plan' => ['house.vacuum_pack', false, ['0 cold_hold', '10 pack method=vacuum plan_name=plan-7'], '9000'];
        yield 'opened in time' => ['house.vacuum_pack', false, ['0 cold_hold', '10 pack method=vacuum', '2880 reheat for=immediate'], '9000'];
        yield 'opened too late' => ['house.vacuum_pack', true, ['0 cold_hold', '10 pack method=vacuum', '2891 reheat for=immediate'], '9000'];
        yield 'repacked in time' => ['house.vacuum_pack', false, ['0 cold_hold', '10 pack method=vacuum', '2000 pack method=tray'], '9000'];
        yield 'frozen days do not count' => ['house.vacuum_pack', false, ['0 cold_hold', '10 pack method=vacuum', '100 freeze', '8000 cold_hold'], '10000'];
        yield 'but the thawed ones do' => ['house.vacuum_pack', true, ['0 cold_hold', '10 pack method=vacuum', '100 freeze', '8000 cold_hold'], '10791'];
        yield 'thrown away in time' => ['house.vacuum_pack', false, ['0 cold_hold', '10 pack method=vacuum', '2000 discard'], '9000'];
        yield 'reheated on a steam table' => ['house.steam_table_reheat', true, ['0 reheat for=hot_hold on=steam_table'], '20'];
        yield 'in an oven' => ['house.steam_table_reheat', false, ['0 reheat for=hot_hold on=oven'], '20'];
        yield 'put together' => ['house.mixed', true, ['0 cold_hold', '9 note mixed_from=1124-3'], '20'];
        yield 'never checked' => ['thermometer.unchecked', true, ['0 cook', '10 140 T1'], '20'];
    }

    #[DataProvider('checksLongAgo')]
    public function testNamesAThermometerWhoseCheckIsOverdue(bool $expected, string ...$checks): void
    {
        $findings = Story::of('0 cook', '10 140 T1')->withThermometer('T1', ...$checks)->assess('20')->findings;
        $overdue = array_values(array_filter($findings, static fn (Finding $finding): bool => $finding->rule === 'thermometer.overdue'));
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

    /** @param list<Doubt> $expected */
    #[DataProvider('slips')]
    public function testAsksAboutSlips(array $expected, string $reading, ?string $before = null, string $minutes = '10'): void
    {
        $doubts = Story::rules()->house()->plausible->doubts(
            Temperature::parse($reading, TemperatureUnit::Fahrenheit),
            Story::at($minutes),
            TemperatureUnit::Fahrenheit,
            $before === null ? null : Temperature::fahrenheit($before),
            $before === null ? null : Story::at('0'),
        );
        self::assertSame($expected, $doubts);
    }

    /** @return iterable<string, array{0: list<Doubt>, 1: string, 2?: string, 3?: string}> */
    public static function slips(): iterable
    {
        yield 'plain' => [[], '203'];
        yield 'rising as meat does' => [[], '150', '140'];
        yield 'at the most: 25 and 6 a minute' => [[], '185', '100'];
        yield 'a tenth more' => [[Doubt::Jump], '185.1', '100'];
        yield 'falling as fast' => [[Doubt::Jump], '115', '200.1', '10'];
        yield 'a digit too many' => [[Doubt::TooHot, Doubt::Jump], '999', '160'];
        yield 'the pit, not the meat' => [[Doubt::TooHot], '230.1'];
        yield 'colder than a freezer' => [[Doubt::TooCold], '-39'];
        yield 'Celsius typed as Fahrenheit' => [[Doubt::Jump, Doubt::OtherUnit], '74', '160', '1'];
        yield 'Celsius in a kitchen of Fahrenheit' => [[Doubt::OtherUnit], '74c'];
    }
}
