<?php

declare(strict_types=1);

namespace Verjuicer\Tests\Core\Ruleset;

use PHPUnit\Framework\TestCase;
use Verjuicer\Core\Assess\Assessor;
use Verjuicer\Core\Measure\Instant;
use Verjuicer\Core\Record\InvalidRecord;
use Verjuicer\Core\Record\Reader;
use Verjuicer\Core\Record\Record;
use Verjuicer\Core\Record\Writer;
use Verjuicer\Core\Ruleset\HouseLimits;
use Verjuicer\Core\Ruleset\RuleSetLibrary;
use Verjuicer\Core\Ruleset\StricterLimits;

final class StricterLimitsTest extends TestCase
{
    public function testOnlyAShorterOneCountsAndEveryNameIsOneOfOurDefaults(): void
    {
        $usual = self::library()->get('us-food-code-2022')->house();
        self::assertSame(StricterLimits::NAMES, array_keys($usual->adjustable()));
        foreach ($usual->adjustable() as $name => $span) {
            foreach ([-60 => $span->seconds - 60, 0 => $span->seconds, 60 => $span->seconds] as $by => $expected) {
                $own = $usual->stricter(new StricterLimits([$name => $span->seconds + $by]))->adjustable();
                self::assertSame($expected, $own[$name]->seconds, "$name $by");
                unset($own[$name]);
                self::assertEquals(array_diff_key($usual->adjustable(), [$name => true]), $own, 'and no other');
            }
        }
    }

    public function testARecordCarriesThemAndTheCommandJudgesByThem(): void
    {
        $record = self::record('{"prep_out_seconds":1800}');
        self::assertSame(['prep_out_seconds' => 1800], $record->site->house->seconds);
        $again = (new Reader(self::library()))->read(Writer::write($record));
        self::assertEquals($record->site->house, $again->site->house);
        $rules = self::library()->get('us-food-code-2022');
        $at = Instant::parse('2026-05-02T06:45:00Z');
        $own = (new Assessor())->assess($record, $rules, $at);
        $usual = (new Assessor())->assess(self::record('{"prep_out_seconds":9999}'), $rules, $at);
        self::assertContains('house.prep_out', array_column($own->findings, 'rule'), '45 minutes out of 30');
        self::assertNotContains('house.prep_out', array_column($usual->findings, 'rule'), '45 minutes out of 60');
        self::assertEquals($usual->rulesJudged, $own->rulesJudged, 'no verdict rests on it');
        self::assertSame(3600, $rules->get(HouseLimits::class)->prepOut->seconds, 'the library keeps its own');
    }

    public function testLessThanAMinuteIsNoLimit(): void
    {
        $this->expectException(InvalidRecord::class);
        self::record('{"prep_out_seconds":59}');
    }

    private static function record(string $limits): Record
    {
        return (new Reader(self::library()))->read(<<<JSON
            {"format":"verjuicer-record/1","site":{"timezone":"America/Denver","unit":"F","house_limits":$limits},
             "rules":"us-food-code-2022","batch":{"code":"x","product":{"animal":"beef","form":"roast",
             "integrity":"intact","pieces":1},"events":[
              {"id":"a","at":"2026-05-02T06:00:00Z","by":"MR","type":"prep"}]}}
            JSON);
    }

    private static function library(): RuleSetLibrary
    {
        return new RuleSetLibrary(__DIR__.'/../../../rulesets');
    }
}
