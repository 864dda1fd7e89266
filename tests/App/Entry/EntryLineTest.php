<?php

declare(strict_types=1);

namespace Verjuicer\Tests\App\Entry;

use PHPUnit\Framework\Attributes\DataProvider;
use PHPUnit\Framework\TestCase;
use Verjuicer\App\Work\Entry\EntryLine;
use Verjuicer\App\Work\Entry\EntryProblem;
use Verjuicer\App\Work\Entry\Verb;
use Verjuicer\Core\Measure\TemperatureUnit;
use Verjuicer\Core\Record\Writer;
use Verjuicer\Tests\Core\Story;

final class EntryLineTest extends TestCase
{
    #[DataProvider('lines')]
    public function testUnderstands(string $line, string $json, int $minutesAgo = 0): void
    {
        $parsed = EntryLine::parse($line, TemperatureUnit::Fahrenheit, ['T1', 'T2']);
        $event = (array) Writer::event($parsed->entry->event('id', Story::at('0'), 'MR'));
        self::assertJsonStringEqualsJsonString($json, (string) json_encode(['tag' => $parsed->tag] + array_diff_key($event, ['id' => 1, 'at' => 1, 'by' => 1])));
        self::assertSame($minutesAgo, $parsed->entry->minutesAgo);
    }

    /** @return iterable<array{0: string, 1: string, 2?: int}> */
    public static function lines(): iterable
    {
        $reading = static fn (string $temp, int $piece = 1, string $spot = 'core', string $more = ''): string => '{"tag":7,"type":"reading","temp":'.$temp.',"piece":'.$piece.',"spot":"'.$spot.'"'.$more.'}';
        yield ['7 203', $reading('{"f":203}')];
        yield ['  7   203.5 ', $reading('{"f":203.5}')];
        yield ['7 95c', $reading('{"c":95}')];
        yield ['7 95 C', $reading('{"c":95}')];
        yield ['7 95,5c', $reading('{"c":95.5}')];
        yield ['7.2 flat 198', $reading('{"f":198}', 2, 'flat')];
        yield ['7,2 198 thick end', $reading('{"f":198}', 2, 'thick end')];
        yield ['7 203 t2', $reading('{"f":203}', 1, 'core', ',"thermometer":"T2"')];
        yield ['7 203 -10', $reading('{"f":203}'), 10];
        yield ['7 -4', $reading('{"f":-4}')];
        yield ['7 -4 -10', $reading('{"f":-4}'), 10];
        yield ['7 wrap paper', '{"tag":7,"type":"wrap","with":"paper"}'];
        yield ['7 WRAP paper -5', '{"tag":7,"type":"wrap","with":"paper"}', 5];
        yield ['7 off', '{"tag":7,"type":"rest"}'];
        yield ['7 off towels', '{"tag":7,"type":"rest","method":"towels"}'];
        yield ['7 cook 250 convection', '{"tag":7,"type":"cook","oven":"convection","set":{"f":250}}'];
        yield ['7 cook', '{"tag":7,"type":"cook"}'];
        yield ['7 cook Drum', '{"tag":7,"type":"cook","pit":"Drum"}'];
        yield ['7 cook Drum 325', '{"tag":7,"type":"cook","set":{"f":325},"pit":"Drum"}'];
        yield ['7 season Quarry rub', '{"tag":7,"type":"season","recipe":"Quarry rub"}'];
        yield ['7 inject', '{"tag":7,"type":"inject"}'];
        yield ['7 spritz Cider spritz -5', '{"tag":7,"type":"spritz","recipe":"Cider spritz"}', 5];
        yield ['7 pack vacuum', '{"tag":7,"type":"pack","method":"vacuum"}'];
        yield ['7 cool shallow pans', '{"tag":7,"type":"cool","method":"shallow pans"}'];
        yield ['7 reheat', '{"tag":7,"type":"reheat","for":"hot_hold"}'];
        yield ['7 reheat immediate', '{"tag":7,"type":"reheat","for":"immediate"}'];
        yield ['7 clock cold6', '{"tag":7,"type":"time_control","plan":"cold_6h"}'];
        yield ['7 pit 240', '{"tag":7,"type":"pit_reading","temp":{"f":240}}'];
        yield ['7 set 275', '{"tag":7,"type":"pit_set","set":{"f":275}}'];
        yield ['7.3 moved flat', '{"tag":7,"type":"probe_moved","piece":3,"spot":"flat"}'];
        yield ['7 discard burnt', '{"tag":7,"type":"discard","reason":"burnt"}'];
        yield ['7 note bark is set', '{"tag":7,"type":"note","text":"bark is set"}'];
    }

    #[DataProvider('problems')]
    public function testSaysWhatIsWrong(string $line, string $key): void
    {
        try {
            EntryLine::parse($line, TemperatureUnit::Fahrenheit, []);
            self::fail('it was understood');
        } catch (EntryProblem $problem) {
            self::assertSame('entry.problem.'.$key, $problem->key);
        }
    }

    /** @return iterable<array{string, string}> */
    public static function problems(): iterable
    {
        yield ['', 'empty'];
        yield ['lamb 203', 'no_tag'];
        yield ['0 203', 'no_tag'];
        yield ['7', 'no_temperature'];
        yield ['7 flat', 'no_temperature'];
        yield ['7 203 204', 'not_understood'];
        yield ['7 1001', 'not_a_temperature'];
        yield ['7 203.55', 'not_a_temperature'];
        yield ['7 203 -721', 'too_long_ago'];
        yield ['7.1 off', 'no_piece_yet'];
        yield ['7.3 wrap foil', 'no_piece_yet'];
        yield ['7.2 discard dropped', 'no_piece_yet'];
        yield ['7 thaw slowly', 'not_understood'];
        yield ['7 pit', 'incomplete.temp'];
        yield ['7 set', 'incomplete.set'];
        yield ['7 clock', 'incomplete.plan'];
    }

    public function testEveryVerbMakesAnEventOfItsKind(): void
    {
        foreach (Verb::cases() as $verb) {
            $line = '7 '.$verb->value.match ($verb) {
                Verb::Pit, Verb::Set => ' 240',
                Verb::Clock => ' hot',
                default => '',
            };
            self::assertSame($verb->type(), EntryLine::parse($line, TemperatureUnit::Fahrenheit, [])->entry->type);
        }
    }
}
