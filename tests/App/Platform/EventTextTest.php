<?php

declare(strict_types=1);

namespace Verjuicer\Tests\App\Platform;

use PHPUnit\Framework\Attributes\DataProvider;
use Symfony\Bundle\FrameworkBundle\Test\KernelTestCase;
use Symfony\Component\Translation\Translator;
use Symfony\Contracts\Translation\TranslatorInterface;
use Verjuicer\App\Platform\Wording\EventText;
use Verjuicer\Core\Event\EventKinds;
use Verjuicer\Core\Event\Field;
use Verjuicer\Core\Event\FieldInput;
use Verjuicer\Core\Event\FieldType;
use Verjuicer\Core\Event\Kinds\Spritz;
use Verjuicer\Core\Measure\Instant;
use Verjuicer\Core\Measure\TimeZone;
use Verjuicer\Core\Record\ImportOrigin;
use Verjuicer\Tests\Core\Story;

/** What an event says, in the few words the log, the echo and the label use. */
final class EventTextTest extends KernelTestCase
{
    #[DataProvider('events')]
    public function testTellsAnEvent(string $expected, string $line, int $pieces = 1, ?string $reason = null): void
    {
        $event = Story::of($line)->record()->events[0];
        self::assertSame(
            $expected,
            self::text()->of($event->detail, $reason, $pieces, TimeZone::named('America/Denver')),
        );
    }

    /** @return iterable<array{0: string, 1: string, 2?: int, 3?: string}> */
    public static function events(): iterable
    {
        yield ['core · 203.5 °F · T1', '0 203.5 T1'];
        yield ['core · 95 °C · thermometer not recorded', '0 95c'];
        yield ['piece 2, flat · 198 °F · T1', '0 198 p2 @flat T1', 4];
        yield ['core · 203 °F · T1 · feels tender', '0 203 T1 feel=tender'];
        yield ['Cook', '0 cook'];
        yield ['Cook · convection oven · set to 250 °F · in Drum', '0 cook oven=convection set=250 pit=Drum'];
        yield [
            'Received · 38.5 °F · frozen · Hollow-Creek · lot HC-1',
            '0 received temp=38.5 frozen=true supplier=Hollow-Creek lot=HC-1',
        ];
        yield ['Cold holding · walk-in', '0 cold_hold place=walk-in'];
        yield ['Cold holding · walk-in', '0 cold_hold holding=walk_in'];
        yield ['Hot holding · cabinet 2 · covered', '0 hot_hold place=cabinet+2 holding=cabinet covered=true'];
        yield ['Rest · towels · air 72 °F', '0 rest method=towels around=72'];
        yield ['Rest · insulated box', '0 rest holding=box'];
        yield ['Cooling · pans · 5 cm deep', '0 cool method=pans depth_mm=50'];
        yield ['Thawing · under running water', '0 thaw method=running_water'];
        yield ['Thawing · in the sink', '0 thaw method=in+the+sink'];
        yield ['Reheat · for hot holding · on a steam table', '0 reheat for=hot_hold on=steam_table'];
        yield ['Time control · from hot', '0 time_control plan=hot_4h'];
        yield [
            'Seasoned · Quarry rub · 202 g · contains milk, soy',
            '0 season recipe=Quarry+rub weight_kg=0.202 allergens=["milk","soy"]',
        ];
        yield ['Trimmed · before 6.4 kg · after 5.13 kg', '0 trim before_kg=6.4 after_kg=5.125'];
        yield ['Bladed · stuffed', '0 tenderize stuffed=true'];
        yield ['Wrapped · in paper · piece 2', '0 wrap with=paper p2', 3];
        yield ['Wrapped · in leaves', '0 wrap with=in+leaves'];
        yield ['Probe moved · piece 3 · flat · to core', '0 probe_moved p3 @flat to_spot=core', 4];
        yield ['Probe placed · flat', '0 probe_placed @flat'];
        yield ['Rotated', '0 rotate'];
        yield ['Pack opened', '0 opened'];
        yield ['Note · wanted by 12:30', '0 note ready_by=2026-05-02T18:30:00Z'];
        yield ['Note · divided · total 2 kg · missing 300 g', '0 note step=divided total_kg=2 lost_kg=0.3'];
        yield ['Packed · vacuum · by plan HP-3', '0 pack method=vacuum plan_name=HP-3'];
        yield ['Served · 2.9 kg · 14 portions', '0 serve weight_kg=2.9 portions=14'];
        yield ['Discarded · for safety · clock ran out', '0 discard why=safety', 1, 'clock ran out'];
        yield [
            'Corrective action · on Cooking temperature · reheated · evidence: T3',
            '0 action finding=cook text=reheated evidence=T3',
        ];
        yield ['Finished · combined · into 1124-3', '0 close step=mixed mixed_into=1124-3'];
        yield ['Note', '0 note recipe=7 weight_kg={} feel=[]'];
    }

    public function testWhatCameOutOfAFileSaysSo(): void
    {
        $zone = TimeZone::named('America/Denver');
        $says = new ImportOrigin('DF', Instant::parse('2026-05-02T18:30:00Z'));
        self::assertSame(
            'Spritzed · imported by DF; the file says it was recorded Sat 2 May 2026 12:30',
            self::text()->of(new Spritz(), null, 1, $zone, $says),
        );
        self::assertSame(
            'Spritzed · imported by DF',
            self::text()->of(new Spritz(), null, 1, $zone, new ImportOrigin('DF', null)),
        );
    }

    /**
     * Whatever the catalogue declares has its words: kinds, fields, choices, taps, signs, and what is missing from a
     * form.
     */
    public function testEverythingInTheCatalogueHasItsWords(): void
    {
        $translator = self::getContainer()->get(TranslatorInterface::class);
        self::assertInstanceOf(Translator::class, $translator);
        $words = $translator->getCatalogue('en');
        $needed = [];
        foreach (EventKinds::all() as $kind) {
            array_push($needed, 'event.'.$kind->name().'.name', 'event.'.$kind->name().'.do');
            if ($kind->declared->isMarked) {
                $needed[] = 'step.sign.'.$kind->name();
            }
            foreach ($kind->declared->taps as $tap) {
                $key = $kind->name();
                foreach ($tap->sets as $field => $value) {
                    $key .= '_'.$field.'_'.str_replace('.', '_', $value);
                }
                $needed[] = 'tap.'.$key;
            }
            foreach ($kind->fields as $name => $field) {
                $needed[] = 'event.field.'.$name;
                foreach ($field->says->usual as $usual) {
                    $needed[] = 'event.usual.'.$usual;
                }
                foreach ($field->choices === null ? [] : $field->choices::cases() as $choice) {
                    $needed[] = 'event.'.$name.'.'.$choice->value;
                }
                $needed = [...$needed, ...$field->says->input === FieldInput::Carried ? [] : self::onForm($field)];
            }
        }
        self::assertSame([], array_values(array_filter($needed, static fn (string $key): bool => !$words->has($key))));
    }

    /** @return list<string> */
    private static function onForm(Field $field): array
    {
        return [
            'step.'.$field->name,
            ...$field->isRequired ? ['entry.problem.incomplete.'.$field->name] : [],
            ...$field->type === FieldType::Choice && !$field->isRequired ? ['step.'.$field->name.'_unknown'] : [],
            ...$field->says->input === FieldInput::Listed ? ['step.no_'.$field->name] : [],
        ];
    }

    private static function text(): EventText
    {
        $text = self::getContainer()->get(EventText::class);
        self::assertInstanceOf(EventText::class, $text);

        return $text;
    }
}
