<?php

declare(strict_types=1);

namespace Verjuicer\Tests\App\Reporting;

use PHPUnit\Framework\Attributes\DataProvider;
use Symfony\Component\Uid\Uuid;
use Verjuicer\App\Ledger\Batch\Batches;
use Verjuicer\App\Ledger\Chain\ChainVerifier;
use Verjuicer\App\Ledger\Log\StoredRecords;
use Verjuicer\App\Platform\Csv\Csv;
use Verjuicer\App\Projection\Projections;
use Verjuicer\App\Reporting\Exchange\Import;
use Verjuicer\App\Reporting\Exchange\ImportCancelled;
use Verjuicer\App\Reporting\Exchange\ImportKind;
use Verjuicer\App\Reporting\Exchange\ImportProgress;
use Verjuicer\App\Reporting\Exchange\Imports;
use Verjuicer\App\Reporting\Exchange\RecordExport;
use Verjuicer\App\Reporting\Exchange\RecordImport;
use Verjuicer\App\Reporting\Exchange\RecordLines;
use Verjuicer\App\Reporting\Exchange\TableImport;
use Verjuicer\App\Reporting\Packet\Packets;
use Verjuicer\App\Site\People\Account;
use Verjuicer\Core\Measure\Instant;
use Verjuicer\Core\Record\Reader;
use Verjuicer\Core\Record\Record;
use Verjuicer\Tests\App\KitchenTestCase;

/** Long files are taken in bit by bit, and come to the same however often that was stopped. */
final class LongImportTest extends KitchenTestCase
{
    private Account $by;

    protected function setUp(): void
    {
        parent::setUp();
        $this->by = $this->logIn('dell');
    }

    /** @param list<int> $stops after how many tellings it is stopped, one try after another */
    #[DataProvider('stops')]
    public function testStoppedAndGoneOnWithItIsTheSame(array $stops, bool $hasUuids): void
    {
        $text = self::record('LONG', 1300, $hasUuids)."\n".self::record('SHORT', 3, $hasUuids);
        $whole = $this->service(Reader::class)->read(self::record('LONG', 1300, $hasUuids));
        $batchId = null;
        foreach ([...$stops, \PHP_INT_MAX] as $try => $most) {
            $told = 0;
            $taking = new ImportProgress(
                $batchId,
                static fn () => ++$told > $most ? throw new ImportCancelled() : null,
                static function (?string $id) use (&$batchId): void {
                    $batchId = $id;
                },
            );
            try {
                $report = $this->service(RecordImport::class)->import($text, $this->by, false, $taking);
                self::assertSame([], $report->different, 'what was stopped is no difference');
                self::assertSame(1307, $taking->done);
            } catch (ImportCancelled) {
                self::assertLessThan(\count($stops), $try);
                $open = "SELECT count(*) FROM open_tag o JOIN batch b ON b.id = o.batch_id WHERE b.code = 'LONG'";
                self::assertSame(0, $this->number($open), 'half of it stands on no board');
            }
        }
        self::assertNull($batchId);
        $kept = $this->kept('LONG');
        self::assertSame(self::said($whole), self::said($kept), 'each once, in its order');
        self::assertSame(2, $this->number("SELECT count(*) FROM batch WHERE code IN ('LONG', 'SHORT')"));
        self::assertNull($this->service(ChainVerifier::class)->firstBreak($this->by->site));
        self::assertSame(2, $this->service(RecordImport::class)->import($text, $this->by, true)->known);
    }

    /** @return iterable<string, array{list<int>, bool}> */
    public static function stops(): iterable
    {
        yield 'never' => [[], true];
        yield 'after the first part' => [[0], true];
        yield 'after each, ids of its own' => [[0, 0], false];
        yield 'between two batches' => [[2], true];
        yield 'again and again' => [[0, 1, 0, 2], false];
    }

    public function testAFileThatWasNotAllInIsGoneOnWithAndAnotherIsNot(): void
    {
        $imports = $this->service(Imports::class);
        $ask = fn (string $text): Import => $imports->keep(
            Uuid::v7(),
            $this->by,
            ImportKind::Records,
            null,
            hash('sha256', $text),
        );
        $one = $ask('one');
        self::assertFalse($one->isAsked);
        $imports->begin($one);
        self::assertSame($one->id, $ask('one')->id, 'handed over again');
        self::assertNotSame($one->id, $ask('other')->id);
        $taking = $imports->taking($one);
        $imports->stop($one);
        try {
            $taking->tell(5);
            self::fail('it was told to stop');
        } catch (ImportCancelled) {
        }
        $stopped = $imports->find($one->id);
        self::assertTrue($stopped?->isStopped);
        self::assertSame(5, $stopped->done);
    }

    public function testHalfOfABatchIsInNoExportAndNoPacketWhichSaysSo(): void
    {
        $imports = $this->service(Imports::class);
        $one = $imports->keep(Uuid::v7(), $this->by, ImportKind::Records, null, hash('sha256', 'half'));
        $imports->begin($one);
        $imports->stop($one);
        try {
            $this->service(RecordImport::class)->import(
                self::record('HALF', 700, true),
                $this->by,
                false,
                $imports->taking($one),
            );
            self::fail('it was told to stop');
        } catch (ImportCancelled) {
        }
        self::assertSame(['HALF'], array_values($imports->unfinished($this->by->site)));
        $all = iterator_to_array($this->service(RecordExport::class)->ndjson(
            $this->by->site,
            Instant::parse('2020-01-01T00:00:00Z'),
            Instant::parse('2030-01-01T00:00:00Z'),
        ), false);
        self::assertStringNotContainsString('"HALF"', implode('', $all));
        $form = $this->client->request('GET', '/packets')->selectButton('Make packet')->form();
        $this->client->submit($form, ['from' => '2026-11-20', 'to' => '2026-11-22', 'product' => '']);
        $packets = $this->service(Packets::class);
        $packet = $packets->find(basename((string) $this->client->followRedirect()->getUri()));
        self::assertNotNull($packet);
        $text = VolumesTest::text($packets->pdf($packet));
        self::assertStringContainsString('import is not complete: HALF.', $text);
        self::assertStringNotContainsString(' HALF, ', $text);
    }

    public function testATableThatIsStoppedIsFollowedAsFarAsItCame(): void
    {
        $this->service(RecordImport::class)->import(self::record('TABLE', 2, true), $this->by, false);
        $state = "SELECT s.%s FROM projection_state s JOIN batch b ON b.id = s.batch_id WHERE b.code = 'TABLE'";
        $head = $this->number(\sprintf($state, 'head'));
        $taking = new ImportProgress(null, static fn () => throw new ImportCancelled());
        try {
            $this->service(TableImport::class)->import(self::table(1200), $this->by, false, $taking);
            self::fail('it was told to stop');
        } catch (ImportCancelled) {
        }
        self::assertCount(504, $this->kept('TABLE')->events);
        self::assertSame($head + 1, $this->number(\sprintf($state, 'head')), 'what the board says is of these');
        self::assertSame($head + 1, $this->number(\sprintf($state, 'made')));
    }

    public function testAManagerStopsAndGoesOnOnThePage(): void
    {
        $imports = $this->service(Imports::class);
        $text = self::record('PAGE', 3, true);
        $import = $imports->keep(
            Uuid::v7(),
            $this->by,
            ImportKind::Records,
            $text,
            hash('sha256', $text),
        );
        $imports->begin($import);
        $page = $this->client->request('GET', '/exchange');
        $this->client->submit($page->selectButton('Stop')->form());
        $page = $this->client->followRedirect();
        self::assertStringContainsString('stopped: 0 of – entries imported', $page->filter('main')->text());
        $this->client->submit($page->selectButton('Resume')->form());
        self::assertStringContainsString('1 imported', $this->client->followRedirect()->filter('main')->text());
        $this->connection()->executeStatement(
            "UPDATE import SET finished_at = NULL, added = NULL, done = 2, problem = 'the disk is full' WHERE id = ?",
            [$import->id],
        );
        $page = $this->client->request('GET', '/exchange');
        self::assertStringContainsString('stopped after 2 imported entries', $page->filter('main')->text());
        self::assertCount(1, $page->selectButton('Resume'));
    }

    public function testWhoeverWaitsForAnAnswerMakesOnlyAFewAnewOfThoseThatAreOver(): void
    {
        $records = array_map(
            static fn (int $number): string => self::record("OVER-$number", 2, true),
            range(1, 8),
        );
        $this->service(RecordImport::class)->import(implode("\n", $records), $this->by, false);
        $this->connection()->executeStatement(
            'UPDATE projection_state SET head = head + 1 FROM batch b WHERE b.id = batch_id '
            ."AND b.code LIKE 'OVER-%'",
        );
        $projections = $this->service(Projections::class);
        $this->client->request('GET', '/');
        self::assertResponseIsSuccessful();
        $left = $projections->pending($this->by->site);
        self::assertGreaterThan(0, $left);
        self::assertLessThan(8, $left);
        self::assertTrue($projections->catchUp($this->by->site->id->toRfc4122(), null));
        self::assertSame(0, $projections->pending($this->by->site));
    }

    public function testATableOfThousandsIsTakenInParts(): void
    {
        $this->service(RecordImport::class)->import(self::record('TABLE', 2, true), $this->by, false);
        $told = [];
        $taking = new ImportProgress(null, static function (ImportProgress $taking) use (&$told): void {
            $told[] = $taking->done;
        });
        $report = $this->service(TableImport::class)->import(self::table(1200), $this->by, false, $taking);
        self::assertSame([], $report->refused);
        self::assertSame([500, 1000, 1200], $told);
        self::assertCount(1204, $this->kept('TABLE')->events);
    }

    public function testARecordOverSeveralLinesIsOneAndAFileIsReadAsItsText(): void
    {
        $one = (string) json_encode(json_decode(self::record('ONE', 1, true)), \JSON_PRETTY_PRINT);
        self::assertSame([1], array_keys(iterator_to_array(RecordLines::ofText($one)->all())));
        $text = "\u{FEFF}{\"a\":1}\r\n\n{\"b\":2}";
        $expected = [1 => '{"a":1}', 3 => '{"b":2}'];
        self::assertSame($expected, iterator_to_array(RecordLines::ofText($text)->all()));
        $path = (string) tempnam(sys_get_temp_dir(), 'lines');
        file_put_contents($path, $text);
        self::assertSame($expected, iterator_to_array(RecordLines::ofFile($path)->all()));
        unlink($path);
    }

    private function kept(string $code): Record
    {
        $id = $this->connection()->fetchOne('SELECT id FROM batch WHERE code = ?', [$code]);
        self::assertIsString($id);

        return $this->service(StoredRecords::class)->of($this->service(Batches::class)->get($id));
    }

    /** @return list<array{int, string}> */
    private static function said(Record $record): array
    {
        return array_map(
            static fn ($event): array => [$event->at->epoch, $event->kind()->name()],
            $record->events,
        );
    }

    private static function table(int $readings): string
    {
        $rows = [RecordExport::READING_COLUMNS];
        for ($n = 0; $n < $readings; ++$n) {
            $at = gmdate('Y-m-d\TH:i:s\Z', 1795161600 + 10 * $n);
            $rows[] = ['TABLE', '940', '', Uuid::v7()->toRfc4122(), $at, 'DF', '1', 'core', '160', 'F', 'T1', ''];
        }

        return implode('', array_map(Csv::line(...), $rows));
    }

    private static function record(string $code, int $readings, bool $hasUuids): string
    {
        $id = static fn (string $name): string => $hasUuids
            ? Uuid::v5(Uuid::fromString(Uuid::NAMESPACE_URL), "$code/$name")->toRfc4122()
            : $name;
        $at = static fn (int $seconds): string => gmdate('Y-m-d\TH:i:s\Z', 1795075200 + $seconds);
        $events = [['id' => $id('cook'), 'at' => $at(0), 'by' => 'ZZ', 'type' => 'cook']];
        for ($n = 0; $n < $readings; ++$n) {
            $events[] = [
                'id' => $id("r$n"), 'at' => $at(60 + 10 * $n), 'by' => 'ZZ', 'type' => 'reading',
                'temp' => ['f' => 100 + intdiv($n, 20)],
                'piece' => 1, 'spot' => 'core', 'thermometer' => 'T1',
            ];
        }
        $events[] = ['id' => $id('end'), 'at' => $at(60 + 10 * $readings), 'by' => 'ZZ', 'type' => 'serve'];

        return (string) json_encode([
            'format' => Reader::FORMAT, 'site' => ['timezone' => 'America/Denver', 'unit' => 'F'],
            'rules' => 'us-food-code-2022',
            'batch' => [
                'code' => $code, 'tag' => 940, 'events' => $events,
                'product' => ['animal' => 'beef', 'form' => 'roast', 'integrity' => 'intact', 'pieces' => 1],
            ],
        ]);
    }
}
