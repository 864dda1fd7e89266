<?php

declare(strict_types=1);

namespace Verjuicer\Tests\App\Operations;

use PHPUnit\Framework\Attributes\DataProvider;
use Symfony\Component\Translation\Translator;
use Symfony\Component\Uid\Uuid;
use Symfony\Contracts\Translation\TranslatorInterface;
use Verjuicer\App\Operations\Entry\EntryLine;
use Verjuicer\App\Operations\Entry\EntryProblem;
use Verjuicer\App\Operations\Entry\TaggedDraft;
use Verjuicer\App\Platform\Problem\Problem;
use Verjuicer\Core\Event\EventKinds;
use Verjuicer\Core\Event\Kinds\Reading;
use Verjuicer\Core\Event\Kinds\Wrap;
use Verjuicer\Core\Food\Feel;
use Verjuicer\Core\Measure\Instant;
use Verjuicer\Core\Record\Writer;
use Verjuicer\Tests\App\KitchenTestCase;
use Verjuicer\Tests\Kitchen\TestKitchen;

/** What was typed is what is understood, or it is said what is not. */
final class EntryLineTest extends KitchenTestCase
{
    #[DataProvider('lines')]
    public function testUnderstands(string $line, string $json, int $minutesAgo = 0): void
    {
        $parsed = $this->parse($line);
        $event = array_diff_key((array) Writer::event($parsed->draft->event('MR')), ['id' => 1, 'at' => 1, 'by' => 1]);
        self::assertJsonStringEqualsJsonString($json, (string) json_encode(['tag' => $parsed->tag] + $event));
        self::assertSame(
            $minutesAgo,
            intdiv(Instant::parse(TestKitchen::MOMENT)->epoch - $parsed->draft->at->epoch, 60),
        );
    }

    /** @return iterable<array{0: string, 1: string, 2?: int}> */
    public static function lines(): iterable
    {
        $reading = static fn (
            string $temp,
            int $piece = 1,
            string $spot = 'core',
            string $more = '',
        ): string => '{"tag":7,"type":"reading","temp":'
            .$temp
            .',"piece":'
            .$piece
            .',"spot":"'
            .$spot
            .'"'
            .$more
            .'}';
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
        yield ['7 cool shallow pans', '{"tag":7,"type":"cool","method":"shallow pans","holding":"shallow_pans"}'];
        yield ['7 reheat', '{"tag":7,"type":"reheat","for":"hot_hold"}'];
        yield ['7 reheat immediate', '{"tag":7,"type":"reheat","for":"immediate"}'];
        yield ['7 clock cold6', '{"tag":7,"type":"time_control","plan":"cold_6h"}'];
        yield ['7 pit 240', '{"tag":7,"type":"pit_reading","temp":{"f":240}}'];
        yield ['7 set 275', '{"tag":7,"type":"pit_set","set":{"f":275}}'];
        yield ['7.3 moved flat', '{"tag":7,"type":"probe_moved","piece":3,"spot":"flat"}'];
        yield ['7 discard burnt', '{"tag":7,"type":"discard","reason":"burnt"}'];
        yield ['7.2 wrap foil', '{"tag":7,"type":"wrap","with":"foil","piece":2}'];
        yield ['7 wrap in foil', '{"tag":7,"type":"wrap","with":"foil"}'];
        yield ['7 thaw under running water', '{"tag":7,"type":"thaw","method":"running_water"}'];
        yield ['7 203 tender', $reading('{"f":203}', 1, 'core', ',"feel":"tender"')];
        yield ['7 203 13:45', $reading('{"f":203}'), 15];
        yield ['7 203 -1h30', $reading('{"f":203}'), 90];
        yield ['7 203 -1 h 30', $reading('{"f":203}'), 90];
        yield ['7 wrap foil yesterday 22:10', '{"tag":7,"type":"wrap","with":"foil"}', 950];
        yield ['7 off 2026-11-24 13:00', '{"tag":7,"type":"rest"}', 60];
        yield ['7 rest 4 min ago', '{"tag":7,"type":"rest"}', 4];
        yield ['7 rest towels 1 h 30 ago', '{"tag":7,"type":"rest","method":"towels"}', 90];
        yield ['7 203 20 ago', $reading('{"f":203}'), 20];
        yield ['7 slice', '{"tag":7,"type":"slice"}'];
        yield ['7 out point', '{"tag":7,"type":"probe_pulled","piece":1,"spot":"point"}'];
        yield ['7 wrap opened', '{"tag":7,"type":"unwrap"}'];
        yield ['7.2 wrap opened -5', '{"tag":7,"type":"unwrap","piece":2}', 5];
        yield ['7 pit 158 °C', '{"tag":7,"type":"pit_reading","temp":{"c":158}}'];
        yield ['7 pit 158 c', '{"tag":7,"type":"pit_reading","temp":{"c":158}}'];
        yield [
            '7 braise Oven 300 with beef stock',
            '{"tag":7,"type":"cook","set":{"f":300},"pit":"Oven","way":"braise","recipe":"beef stock"}',
        ];
        yield ['7 slits', '{"tag":7,"type":"tenderize"}'];
        yield ['7 studded', '{"tag":7,"type":"tenderize"}'];
        yield ['7 discard 0.5 kg dropped', '{"tag":7,"type":"discard","weight_kg":0.5,"reason":"dropped"}'];
        yield ['7 note bark is set', '{"tag":7,"type":"note","text":"bark is set"}'];
    }

    #[DataProvider('problems')]
    public function testSaysWhatIsWrong(string $line, string $key): void
    {
        try {
            $this->parse($line);
            self::fail('it was understood');
        } catch (Problem $problem) {
            self::assertSame($key, preg_replace('/^(entry|when)\.problem\./', '', $problem->key));
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
        yield ['7 203 14:01', 'ahead'];
        yield ['7 203 2016-11-01 10:00', 'too_long_ago'];
        yield ['7 203 25:00', 'not_understood'];
        yield ['7.1 set 250', 'no_piece_yet'];
        yield ['7.2 pit 240', 'no_piece_yet'];
        yield ['7 prep slowly', 'not_understood'];
        yield ['7 pit', 'incomplete.temp'];
        yield ['7 set', 'incomplete.set'];
        yield ['7 clock', 'incomplete.plan'];
    }

    public function testEverySayingHasItsWordAndMakesAnEventOfItsKind(): void
    {
        $needs = ['pit' => ' 240', 'set' => ' 240', 'clock' => ' hot', 'remind' => ' spritz every 30'];
        foreach (EventKinds::all() as $kind) {
            foreach ($kind->declared->sayings as $saying) {
                $draft = $this->parse('7 '.$saying->key.($needs[$saying->key] ?? ''))->draft;
                self::assertSame($kind->class, $draft->detail::class, $saying->key);
            }
        }
    }

    public function testItsWordsAreThoseOfTheLanguage(): void
    {
        $translator = $this->service(TranslatorInterface::class);
        self::assertInstanceOf(Translator::class, $translator);
        $words = $translator->getCatalogue('en');
        $words->set('verb.wrap', 'einpacken', 'line');
        $words->set('choice.feel.tender', 'zart', 'line');
        self::assertInstanceOf(Wrap::class, $this->parse('7 einpacken in foil')->draft->detail);
        $reading = $this->parse('7 203 zart')->draft->detail;
        self::assertInstanceOf(Reading::class, $reading);
        self::assertSame(Feel::Tender, $reading->feel);
        $this->expectException(EntryProblem::class);
        $this->parse('7 wrap foil');
    }

    private function parse(string $line): TaggedDraft
    {
        return $this->service(EntryLine::class)->parse($line, $this->logIn()->site, Uuid::v7());
    }
}
