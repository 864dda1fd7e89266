<?php

declare(strict_types=1);

namespace Verjuicer\Tests\Core\Series;

use PHPUnit\Framework\TestCase;
use Random\Engine\Mt19937;
use Random\Randomizer;
use Verjuicer\Core\Measure\Temperature;
use Verjuicer\Core\Measure\TemperatureUnit;
use Verjuicer\Core\Series\AirThinning;
use Verjuicer\Core\Series\LimitBands;
use Verjuicer\Core\Series\Sample;
use Verjuicer\Tests\Core\Story;

/** Which samples may be left out because no limit lies between them, and which of the air. */
final class BandsTest extends TestCase
{
    /** Two temperatures of one unit are in one band exactly where no limit of the rule set tells them apart. */
    public function testABandHasNoLimitWithin(): void
    {
        $chance = new Randomizer(new Mt19937(7));
        foreach (Story::library()->ids() as $id) {
            $rules = Story::library()->get($id);
            $bands = LimitBands::of($rules);
            for ($try = 0; $try < 2000; ++$try) {
                $unit = TemperatureUnit::cases()[$chance->getInt(0, 1)];
                $tenths = $chance->getInt(-100, 2200);
                $one = Temperature::ofTenths($tenths, $unit);
                $other = Temperature::ofTenths($tenths + $chance->getInt(-20, 20), $unit);
                $isOne = true;
                foreach ($rules->thresholds() as $limit) {
                    $isOne = $isOne && $limit->compare($one) === $limit->compare($other);
                }
                self::assertSame($isOne, $bands->areOne($one, $other), "$id {$one->number()} {$other->number()}");
            }
        }
        $ofAll = LimitBands::of(Story::rules());
        $isOne = $ofAll->areOne(Temperature::fahrenheit('150'), Temperature::celsius('65.6'));
        self::assertFalse($isOne, 'not of two units');
    }

    public function testOfTheAirOneInTenMinutesIsKeptAndEveryMove(): void
    {
        $thinning = AirThinning::start();
        $kept = [];
        foreach (
            [0 => '250', 60 => '251', 120 => '254.9', 180 => '255', 240 => '253', 779 => '254', 780 => '254',
                840 => '248.9', 900 => '240'] as $at => $temp
        ) {
            [$thinning, $isKept] = $thinning->see(new Sample($at, $at, Temperature::fahrenheit($temp)));
            $thinning = AirThinning::ofArray(
                json_decode(json_encode($thinning->toArray(), \JSON_THROW_ON_ERROR), true, 8, \JSON_THROW_ON_ERROR),
            );
            if ($isKept) {
                $kept[] = $at;
            }
        }
        self::assertSame([0, 180, 780, 840, 900], $kept);
    }
}
