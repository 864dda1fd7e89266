<?php

declare(strict_types=1);

namespace Verjuicer\Tests\App\Wording;

use PHPUnit\Framework\Attributes\DataProvider;
use Symfony\Bundle\FrameworkBundle\Test\KernelTestCase;
use Symfony\Component\Yaml\Yaml;
use Verjuicer\App\Platform\Wording\EventText;
use Verjuicer\App\Work\Entry\EntryForm;
use Verjuicer\Core\Measure\Zone;
use Verjuicer\Core\Record\Event;
use Verjuicer\Core\Record\EventType;
use Verjuicer\Tests\Core\Story;

/** What an event says, in the few words the log, the echo and the label use. */
final class EventTextTest extends KernelTestCase
{
    /** @param array<string, mixed> $extras */
    #[DataProvider('events')]
    public function testTellsAnEvent(string $expected, string $line, array $extras = [], int $pieces = 1, ?string $reason = null): void
    {
        $event = Story::of($line)->record()->events[0];
        self::assertSame($expected, self::text()->of($event->type, $event->detail, $reason, $pieces, $extras + $event->unknown, Zone::named('America/Denver')));
    }

    /** @return iterable<array{0: string, 1: string, 2?: array<string, mixed>, 3?: int, 4?: string}> */
    public static function events(): iterable
    {
        yield ['core · 203.5 °F · T1', '0 203.5 T1'];
        yield ['core · 95 °C · no thermometer named', '0 95c'];
        yield ['piece 2, flat · 198 °F · T1', '0 198 p2 @flat T1', [], 4];
        yield ['core · 203 °F · T1 · feels tender', '0 203 T1', ['feel' => 'tender']];
        yield ['Cook', '0 cook'];
        yield ['Cook · convection oven · set to 250 °F · in Drum', '0 cook oven=convection set=250', ['pit' => 'Drum']];
        yield ['Received · 38.5 °F · frozen · Hollow-Creek', '0 received temp=38.5 frozen=true supplier=Hollow-Creek'];
        yield ['In the cold · walk-in', '0 cold_hold place=walk-in'];
        yield ['Rest · towels · around it 72 °F', '0 rest method=towels', ['around' => (object) ['f' => 72]]];
        yield ['Cooling · pans · 50 mm deep', '0 cool method=pans', ['depth_mm' => 50]];
        yield ['Reheat · for hot holding · on a steam table', '0 reheat for=hot_hold', ['on' => 'steam_table']];
        yield ['Out by the clock · from hot, 4 h', '0 time_control plan=hot_4h'];
        yield ['Seasoned · Quarry rub · 202 g · contains milk, soy', '0 season', ['recipe' => 'Quarry rub', 'weight_kg' => 0.202, 'allergens' => ['milk', 'soy']]];
        yield ['Trimmed · before 6.4 kg · after 5.1 kg', '0 trim', ['before_kg' => 6.4, 'after_kg' => 5.1]];
        yield ['Bladed · stuffed', '0 tenderize', ['stuffed' => true]];
        yield ['Probe left · piece 3 · flat · to core', '0 probe_moved p3 @flat', ['to_spot' => 'core'], 4];
        yield ['Note · rotated', '0 note', ['step' => 'rotated']];
        yield ['Note · wanted by 12:30', '0 note', ['ready_by' => '2026-05-02T18:30:00Z']];
        yield ['Note · divided · in all 2 kg · missing 300 g', '0 note', ['step' => 'divided', 'total_kg' => 2, 'left_kg' => 0, 'lost_kg' => 0.3]];
        yield ['Packed · vacuum · by plan HP-3', '0 pack method=vacuum', ['plan_name' => 'HP-3']];
        yield ['Served · 2.9 kg · 14 portions', '0 serve', ['weight_kg' => 2.9, 'portions' => 14]];
        yield ['Thrown away · for safety · clock ran out', '0 discard', ['why' => 'safety'], 1, 'clock ran out'];
        yield ['Action · cook · reheated · on T3', '0 action finding=cook text=reheated', ['evidence' => 'T3']];
        yield ['Closed · put together · into 1124-3', '0 close', ['step' => 'mixed', 'mixed_into' => '1124-3']];
        yield ['Note', '0 note', ['recipe' => 7, 'weight_kg' => 'much', 'feel' => ['odd'], 'around' => 'warm', 'deep' => (object) []]];
    }

    public function testEveryChoiceAndFieldOfAFormHasItsWords(): void
    {
        $messages = Yaml::parseFile(__DIR__.'/../../../translations/messages.en.yaml');
        self::assertIsArray($messages);
        foreach (EntryForm::CHOICES as $name => $values) {
            foreach ($values as $value) {
                self::assertArrayHasKey($value, $messages['event'][$name], "event.$name.$value");
            }
        }
        foreach (EventType::cases() as $type) {
            foreach (array_diff(EntryForm::fields($type), EntryForm::UNTYPED) as $field) {
                self::assertArrayHasKey($field, $messages['step'], "step.$field");
            }
        }
        foreach (EntryForm::OPEN_CHOICES as $name) {
            self::assertArrayHasKey($name.'_unknown', $messages['step']);
        }
    }

    private static function text(): EventText
    {
        $text = self::getContainer()->get(EventText::class);
        self::assertInstanceOf(EventText::class, $text);

        return $text;
    }
}
