<?php

declare(strict_types=1);

namespace Verjuicer\Tests\App\Reporting;

use Doctrine\ORM\EntityManagerInterface;
use PHPUnit\Framework\Attributes\DataProvider;
use Symfony\Component\DomCrawler\Crawler;
use Symfony\Component\Uid\Uuid;
use Verjuicer\App\Ledger\Batch\Batch;
use Verjuicer\App\Ledger\Chain\ChainVerifier;
use Verjuicer\App\Ledger\Log\StoredRecords;
use Verjuicer\App\Platform\Csv\Csv;
use Verjuicer\App\Reporting\Exchange\EventTable;
use Verjuicer\App\Reporting\Exchange\RecordExport;
use Verjuicer\App\Reporting\Exchange\TableImport;
use Verjuicer\Core\Event\Kinds\Reading;
use Verjuicer\Core\Record\Event;
use Verjuicer\Tests\App\KitchenTestCase;
use Verjuicer\Tests\Kitchen\TestKitchen;

/**
 * Tables out as RFC 4180 has them, and a logger's readings in: seen before they are taken, all or nothing, each once.
 */
final class ExchangeTest extends KitchenTestCase
{
    /** @param list<string|int|null> $fields */
    #[DataProvider('lines')]
    public function testALineReadsBackAsItWasWritten(array $fields, string $line): void
    {
        self::assertSame($line."\r\n", Csv::line($fields));
        self::assertSame(
            [array_map(static fn (string|int|null $field): string => trim((string) $field), $fields)],
            Csv::read(Csv::line($fields)),
        );
    }

    /** @return iterable<array{list<string|int|null>, string}> */
    public static function lines(): iterable
    {
        yield [['a', 1, 'b c'], 'a,1,b c'];
        yield [['a,b', 'say "hot"', null, 'x'], '"a,b","say ""hot""",,x'];
        yield [["two\nlines", 'плечо'], "\"two\nlines\",плечо"];
        yield [['\\', 'x'], '\\,x'];
    }

    /** @param list<list<string>> $expected */
    #[DataProvider('tables')]
    public function testReadsTablesAsOthersWriteThem(string $text, array $expected): void
    {
        self::assertSame($expected, Csv::read($text));
    }

    /** @return iterable<array{string, list<list<string>>}> */
    public static function tables(): iterable
    {
        yield ["a,b\nc,d", [['a', 'b'], ['c', 'd']]];
        yield ["\xEF\xBB\xBFa;b\r\nc;1,5\r\n", [['a', 'b'], ['c', '1,5']]];
        yield ["a\tb\nc\td\n\n", [['a', 'b'], ['c', 'd']]];
        yield ['', []];
    }

    public function testReadingsAndEventsGoOutWithEveryColumn(): void
    {
        $this->logIn('wynn');
        foreach (
            ['readings' => RecordExport::READING_COLUMNS, 'events' => EventTable::columns()] as $what => $columns
        ) {
            $table = Csv::read($this->download("/export/$what?from=2020-01-01&to=2100-01-01"));
            self::assertSame($columns, $table[0]);
            foreach ($table as $row) {
                self::assertCount(\count($columns), $row);
            }
            $expected = 0;
            foreach ($this->service(EntityManagerInterface::class)->getRepository(Batch::class)->findAll() as $batch) {
                $events = $this->service(StoredRecords::class)->of($batch)->events;
                $expected += \count(
                    $what === 'readings'
                        ? array_filter($events, static fn (Event $event): bool => $event->is(Reading::class))
                        : $events,
                );
            }
            self::assertCount(1 + $expected, $table, 'every event of every record, once in each that shares it');
        }
        $this->client->request('GET', '/export/readings?from=yesterday&to=today');
        self::assertResponseStatusCodeSame(404);
    }

    /** @param array<string, string> $mapping */
    #[DataProvider('loggers')]
    public function testALoggersTableIsSeenBeforeItIsTaken(string $text, array $mapping, string $said, int $kept): void
    {
        $this->logIn('dell');
        $before = $this->number("SELECT count(*) FROM event WHERE type = 'reading'");
        $page = $this->submit($text, $mapping);
        self::assertStringContainsString($said, $page->filter('main')->text());
        self::assertSame($before, $this->number("SELECT count(*) FROM event WHERE type = 'reading'"), 'not written');
        if ($kept === 0) {
            self::assertCount(0, $page->selectButton('Import'));

            return;
        }
        $this->client->submit($page->selectButton('Import')->form());
        self::assertResponseRedirects('/exchange');
        self::assertSame($before + $kept, $this->number("SELECT count(*) FROM event WHERE type = 'reading'"));
        self::assertStringContainsString(
            '0 new, '.$kept.' already exist',
            $this->submit($text, $mapping)->filter('main')->text(),
            'the same again is known',
        );
    }

    /** @return iterable<string, array{string, array<string, string>, string, int}> */
    public static function loggers(): iterable
    {
        yield 'with a zone of its own' => [
            "time,temp\n2026-11-01T12:00:00Z,160.5\n2026-11-01T12:10:00Z,161\n",
            [],
            '2 new',
            2,
        ];
        yield 'on the wall, in °C, other columns' => [
            "id;t;when\n1;71,5;2026-11-01 05:00\n2;72,0;2026-11-01 05:10\n3;72,0;2026-11-01 05:10\n",
            ['time' => '3', 'temperature' => '2', 'unit' => 'C'],
            '2 new',
            2,
        ];
        yield 'without a header' => ["2026-11-01 05:00:30,160\n", ['header' => ''], '1 new', 1];
        yield 'a clock that goes back' => [
            "t,v\n2026-11-01 01:50,160\n2026-11-01 01:10,161\n2026-11-01 01:50,162\n",
            [],
            '3 new',
            3,
        ];
        yield 'one bad line refuses all' => ["t,v\n2026-11-01 05:00,160\n2026-11-01 05:10,hot\n", [], 'Line 3:', 0];
        yield 'a time that is skipped' => ["t,v\n2026-03-08 02:30,160\n", [], 'a clock change skips', 0];
        yield 'a spot it does not have' => [
            "t,v\n2026-11-01 05:00,160\n",
            ['spot' => 'elbow'],
            '), and nothing else this line takes',
            0,
        ];
        yield 'a time ahead' => ["t,v\n2126-03-08 05:30,160\n", [], 'lies ahead', 0];
        yield 'no readings' => ["t,v\n", [], 'there is no reading in it', 0];
        yield 'a tag nobody has' => ["t,v\n2026-11-01 05:00,160\n", ['tag' => '998'], 'No open batch has that tag', 0];
        yield 'a piece it does not have' => [
            "t,v\n2026-11-01 05:00,160\n",
            ['piece' => '9'],
            'Enter a whole number from 1 to 4',
            0,
        ];
        yield 'a zone that is none' => [
            "t,v\n2026-11-01 05:00,160\n",
            ['zone' => 'Atlantis'],
            'Enter a zone, such as America/Denver',
            0,
        ];
    }

    #[DataProvider('hundredths')]
    public function testHundredthsAreNeverRoundedToTheSafeSide(string $logged, string $kept): void
    {
        $this->logIn('dell');
        $page = $this->submit("t,v\n2026-11-01T12:00:00Z,$logged\n", []);
        $this->client->submit($page->selectButton('Import')->form());
        self::assertJsonStringEqualsJsonString(
            $kept,
            $this->words("SELECT (members->'temp')::text FROM event WHERE type = 'reading' ORDER BY seq DESC LIMIT 1"),
        );
    }

    /** @return iterable<array{string, string}> */
    public static function hundredths(): iterable
    {
        yield ['134.99', '{"f":134.9}'];
        yield ['135.00', '{"f":135}'];
        yield ['41.01', '{"f":41.1}'];
        yield ['41.00', '{"f":41}'];
        yield ['70.04', '{"f":70.1}'];
        yield ['165.05', '{"f":165}'];
        yield ['-4.06', '{"f":-4}'];
    }

    public function testTablesComeBackInAsTheyWentOut(): void
    {
        $dell = $this->logIn('dell');
        $import = $this->service(TableImport::class);
        $before = $this->number('SELECT count(*) FROM event');
        foreach (['readings', 'events'] as $what) {
            $table = $this->download("/export/$what?from=2020-01-01&to=2100-01-01");
            $report = $import->import($table, $dell, false);
            self::assertSame(
                [0, substr_count($table, "\r\n") - 1, []],
                [$report->new, $report->known, $report->refused],
                $what.': all of it is there already',
            );
        }
        self::assertSame($before, $this->number('SELECT count(*) FROM event'));
        $code = $this->words('SELECT code FROM batch WHERE tag = 7');
        // As tables were written before every field had its column.
        $event = 'batch,tag,product,event,at_utc,recorded_at_utc,by,type,members,replaces,reason,replaced_by'."\r\n";
        $reading = Uuid::v7()->toRfc4122();
        $lines =
            $event
            .Csv::line([
                $code,
                7,
                'x',
                $reading,
                '2026-11-24T01:00:00Z',
                '2026-11-24T01:00:30Z',
                'ZZ',
                'reading',
                '{"temp":{"c":61.5},"piece":1,"spot":"core"}',
                null,
                null,
                null,
            ])
            .Csv::line([
                $code,
                7,
                'x',
                Uuid::v7()->toRfc4122(),
                '2026-11-24T01:00:00Z',
                null,
                'ZZ',
                'void',
                '{}',
                $reading,
                'the wrong tag',
                null,
            ]);
        self::assertSame(2, $import->import($lines, $dell, true)->new);
        self::assertSame($before, $this->number('SELECT count(*) FROM event'), 'a look takes nothing');
        $report = $import->import($lines, $dell, false);
        self::assertSame([2, []], [$report->new, $report->refused]);
        self::assertSame(2, $import->import($lines, $dell, false)->known, 'once');
        self::assertSame(
            'ZZ 61.5',
            $this->words(
                "SELECT initials || ' ' || (members->'temp'->>'c') FROM event WHERE id = '$reading' AND recorded_at = '"
                    .TestKitchen::MOMENT
                    ."'",
            ),
            'recorded when it came in, whatever the file says',
        );
        self::assertJsonStringEqualsJsonString(
            '{"by":"DF","says_recorded_at":"2026-11-24T01:00:30Z"}',
            $this->words("SELECT members->>'imported' FROM event WHERE id = '$reading'"),
            'what the file says stands beside it',
        );
        self::assertStringContainsString(
            'imported by DF; the file says it was recorded Mon 23 Nov 2026 18:00',
            $this->client->request('GET', $this->path(7))->filter('#everything')->text(),
        );
        self::assertNull($this->service(ChainVerifier::class)->firstBreak($dell->site));
    }

    #[DataProvider('wrongLines')]
    public function testOneWrongLineRefusesTheWholeTable(string $line, string $why): void
    {
        $dell = $this->logIn('dell');
        $before = $this->number('SELECT count(*) FROM event');
        $good = '{code},7,x,'.Uuid::v7()->toRfc4122().",2026-11-24T01:00:00Z,ZZ,1,core,61.5,C,,\r\n";
        $text = str_replace(
            '{code}',
            $this->words('SELECT code FROM batch WHERE tag = 7'),
            "batch,tag,product,event,at_utc,by,piece,spot,value,unit,thermometer,replaced_by\r\n".$good.$line,
        );
        $report = $this->service(TableImport::class)->import($text, $dell, false);
        self::assertStringContainsString(
            $why,
            json_encode($report->refused, \JSON_THROW_ON_ERROR | \JSON_UNESCAPED_SLASHES),
        );
        self::assertSame($before, $this->number('SELECT count(*) FROM event'), 'nothing is half taken');
    }

    /** @return iterable<string, array{string, string}> */
    public static function wrongLines(): iterable
    {
        $id = '01a21219-0000-7000-8000-000000000001';
        yield 'no such batch' => [
            "nowhere,7,x,$id,2026-11-24T01:00:00Z,ZZ,1,core,61.5,C,,",
            '"line":3,"why":"there is no batch',
        ];
        yield 'no id' => ['{code},7,x,42,2026-11-24T01:00:00Z,ZZ,1,core,61.5,C,,', 'must be a UUID'];
        yield 'no time' => ["{code},7,x,$id,yesterday,ZZ,1,core,61.5,C,,", '"line":3,"why":"at '];
        yield 'ahead of now' => [
            "{code},7,x,$id,2100-01-01T00:00:00Z,ZZ,1,core,61.5,C,,",
            '"line":3,"why":"it lies ahead of now',
        ];
        yield 'nobody' => ["{code},7,x,$id,2026-11-24T01:00:00Z,,1,core,61.5,C,,", '"line":3,"why":"'];
        yield 'a unit of no thermometer' => [
            "{code},7,x,$id,2026-11-24T01:00:00Z,ZZ,1,core,61.5,K,,",
            '"line":3,"why":"temp',
        ];
        yield 'hundredths' => ["{code},7,x,$id,2026-11-24T01:00:00Z,ZZ,1,core,61.55,C,,", '"line":3,"why":"temp'];
        yield 'corrected elsewhere' => [
            "{code},7,x,$id,2026-11-24T01:00:00Z,ZZ,1,core,61.5,C,,01a21219-0000-7000-8000-000000000009",
            'take in the events',
        ];
        yield 'the same id twice' => [
            "{code},7,x,$id,2026-11-24T01:00:00Z,ZZ,1,core,61.5,C,,\r\n"
."{code},7,x,$id,2026-11-24T01:00:00Z,ZZ,1,core,61.5,C,,",
            'every id must be its own',
        ];
    }

    public function testATableWithoutItsColumnsIsNone(): void
    {
        foreach (['', 'batch,event', "a;b\r\n1;2"] as $text) {
            self::assertStringContainsString(
                'must name every column',
                $this->service(TableImport::class)->import($text, $this->logIn('dell'), false)->refused[0]['why'] ?? '',
            );
        }
    }

    public function testOnlyAManagerTakesAnythingIn(): void
    {
        foreach (['mara', 'wynn'] as $login) {
            $this->logIn($login);
            self::assertCount(0, $this->client->request('GET', '/exchange')->filter('input[type=file]'));
            $this->client->request('POST', '/exchange');
            self::assertResponseStatusCodeSame(403);
        }
    }

    /** @param array<string, string> $mapping */
    private function submit(string $text, array $mapping): Crawler
    {
        $form = $this->client->request('GET', '/exchange')->selectButton('Preview import')->form();
        $values =
            $mapping + ['what' => 'logger', 'tag' => '7', 'text' => $text, 'thermometer' => 'T1'] + $form->getValues();

        return $this->client->request('POST', '/exchange', $values);
    }

    private function download(string $path): string
    {
        ob_start();
        $this->client->request('GET', $path);
        $streamed = (string) ob_get_clean();

        return $streamed !== '' ? $streamed : $this->client->getInternalResponse()->getContent();
    }
}
