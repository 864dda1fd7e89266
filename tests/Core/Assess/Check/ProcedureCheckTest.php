<?php

declare(strict_types=1);

namespace Verjuicer\Tests\Core\Assess\Check;

use Verjuicer\Core\Assess\Evidence\NeededProcedures;
use Verjuicer\Tests\Core\Story;

/** What asks for a written procedure: in force when it was done, not before and not after. */
final class ProcedureCheckTest extends CheckTestCase
{
    public static function cases(): iterable
    {
        $rule = 'house.procedure';
        $clock = self::cooked('0 time_control plan=hot_4h');
        $vacuum = self::cooked('0 cold_hold', '10 pack method=vacuum');
        yield 'a record that does not say what the site has' => [$rule, 'none', $clock, '20'];
        yield 'out by the clock' => [$rule, 'caution', $clock, '20', 'beef cut papers'];
        yield 'with its procedure' => [$rule, 'none', $clock, '20', 'beef cut paper:time_control:0'];
        yield 'in force a minute later' => [$rule, 'caution', $clock, '20', 'beef cut paper:time_control:1'];
        yield 'replaced a minute before' => [$rule, 'caution', $clock, '20', 'beef cut paper:time_control:-90:-1'];
        yield 'replaced that minute' => [$rule, 'caution', $clock, '20', 'beef cut paper:time_control:-90:0'];
        yield 'replaced a minute later' => [$rule, 'none', $clock, '20', 'beef cut paper:time_control:-90:1'];
        yield 'another procedure' => [$rule, 'caution', $clock, '20', 'beef cut paper:vacuum_pack:-90'];
        yield 'vacuum packed' => [$rule, 'caution', $vacuum, '20', 'beef cut papers'];
        yield 'vacuum packed by its procedure' => [$rule, 'none', $vacuum, '20', 'beef cut paper:vacuum_pack:0'];
        yield 'packed otherwise' => [
            $rule,
            'none',
            self::cooked('0 cold_hold', '10 pack method=bags'),
            '20',
            'beef cut papers',
        ];
        yield 'cooked, cooled and cooked on' => [
            $rule,
            'caution',
            ['0 cook', '30 cool', '200 cold_hold', '300 cook'],
            '320',
            'beef cut papers',
        ];
        yield 'by an approved procedure' => [
            $rule,
            'none',
            ['0 cook', '30 cool', '200 cold_hold', '300 cook'],
            '320',
            'beef cut paper:non_continuous:0',
        ];
        yield 'cooked, and moved to another pit' => [$rule, 'none', ['0 cook', '30 cook'], '320', 'beef cut papers'];
        yield 'cooled and reheated' => [
            $rule,
            'none',
            self::cooked('0 cool', '90 reheat for=hot_hold'),
            '320',
            'beef cut papers',
        ];
        yield 'cured' => [$rule, 'caution', ['0 prep'], '20', 'pork roast cured papers'];
        yield 'cured under a variance' => [$rule, 'none', ['0 prep'], '20', 'pork roast cured paper:preserving:-9'];
        yield 'smoked for flavour' => [$rule, 'none', ['0 cook'], '20', 'pork roast papers'];
    }

    public function testARecordCitesTheNumberAndTheVersionItWasDoneBy(): void
    {
        $record = Story::of(...self::cooked('0 time_control plan=hot_4h', '30 serve'))
            ->about('beef cut paper:time_control:-5')
            ->record();
        $needed = NeededProcedures::of($record->site, $record->product, $record->events);
        $procedure = $needed['time_control']['procedure'];
        self::assertSame(['P-1', 2], [$procedure?->number, $procedure?->version]);
    }
}
