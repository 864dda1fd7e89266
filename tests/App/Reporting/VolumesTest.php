<?php

declare(strict_types=1);

namespace Verjuicer\Tests\App\Reporting;

use Symfony\Component\Process\Process;
use Verjuicer\App\Reporting\Exchange\RecordImport;
use Verjuicer\App\Reporting\Packet\Packet;
use Verjuicer\App\Reporting\Packet\Packets;
use Verjuicer\Core\Record\Reader;
use Verjuicer\Tests\App\KitchenTestCase;

/** More batches than a volume holds are several, each made, checked and tried again by itself. */
final class VolumesTest extends KitchenTestCase
{
    public function testEachVolumeHoldsItsBatchesAndTogetherAllOfThem(): void
    {
        $by = $this->logIn('dell');
        $records = array_map(self::record(...), range(1, 8));
        $this->service(RecordImport::class)->import(implode("\n", $records), $by, false);
        $codes = $this->connection()->fetchFirstColumn('SELECT code FROM batch ORDER BY code');
        $form = $this->client->request('GET', '/packets')->selectButton('Make packet')->form();
        $this->client->submit($form, ['from' => '2026-11-01', 'to' => '2026-11-24']);
        $page = $this->client->followRedirect();
        self::assertStringContainsString('2 of 2 volumes ready', $page->filter('main')->text());
        $packets = $this->service(Packets::class);
        $first = $packets->find(basename((string) $page->getUri()));
        self::assertNotNull($first);
        $volumes = $packets->volumes($first);
        self::assertSame([1, 2], array_map(static fn (Packet $one): int => $one->scope->volume, $volumes));
        $texts = array_map(static fn (Packet $one): string => self::text($packets->pdf($one)), $volumes);
        foreach ($codes as $code) {
            self::assertIsString($code);
            $in = array_filter($texts, static fn (string $text): bool => str_contains($text, " $code, "));
            self::assertCount(1, $in, "$code stands in the contents of one");
        }
        foreach ($volumes as $index => $volume) {
            self::assertStringContainsString('Volume '.(1 + $index).' of 2.', $texts[$index]);
            self::assertStringContainsString('Deviations and corrective actions', $texts[$index]);
            $file = (string) tempnam(sys_get_temp_dir(), 'volume');
            file_put_contents($file, $packets->pdf($volume));
            $checked = new Process([\PHP_BINARY, 'bin/verify-packet', $file], \dirname(__DIR__, 3));
            $checked->run();
            unlink($file);
            self::assertSame(0, $checked->getExitCode(), $checked->getOutput().$checked->getErrorOutput());
            self::assertStringContainsString('pages compared with the records', $checked->getOutput());
        }
        self::assertStringContainsString('T2 QL-0119', $texts[0]);
        self::assertStringNotContainsString('T2 QL-0119', $texts[1], 'what is of all days stands in the first');
        self::assertStringContainsString(
            'Thermometer checks, pits, deliveries, alarms and signatures are in volume 1',
            $texts[1],
        );
        $page = $this->client->submit($page->selectButton('Create link')->form(['days' => '3']));
        self::assertSame(1, preg_match('#/shared/[0-9a-f]{48}#', $page->filter('main')->text(), $link));
        $this->client->restart();
        $page = $this->client->request('GET', $link[0] ?? '');
        self::assertCount(2, $page->filter('main a.key'));
        $this->client->click($page->selectLink('Open volume 2 of 2 (PDF)')->link());
        self::assertSame($volumes[1]->sha256, hash('sha256', (string) $this->client->getResponse()->getContent()));
    }

    public function testOneThatCouldNotBeMadeIsTriedAgainByItself(): void
    {
        $this->logIn('dell');
        $form = $this->client->request('GET', '/packets')->selectButton('Make packet')->form();
        $this->client->submit($form, ['from' => '2026-11-24', 'to' => '2026-11-24', 'product' => 'Duck']);
        $id = basename((string) $this->client->followRedirect()->getUri());
        $this->asOwner();
        $this->connection()->executeStatement('SET session_replication_role = replica');
        $this->connection()->executeStatement(
            "UPDATE packet SET finished_at = NULL, pdf = NULL, problem = 'the disk is full' WHERE id = ?",
            [$id],
        );
        $this->connection()->executeStatement('SET session_replication_role = DEFAULT');
        $this->logIn('dell');
        $page = $this->client->request('GET', "/packets/$id");
        self::assertStringContainsString('the disk is full', $page->filter('[role=alert]')->text());
        $this->client->submit($page->selectButton('Try again')->form());
        self::assertStringContainsString('Open the PDF', $this->client->followRedirect()->filter('main')->text());
    }

    public static function text(string $pdf): string
    {
        $process = new Process(['pdftotext', '-layout', '-', '-'], null, null, $pdf);

        return preg_replace('/\s+/', ' ', $process->mustRun()->getOutput()) ?? '';
    }

    private static function record(int $number): string
    {
        $at = static fn (int $minutes): string => gmdate('Y-m-d\TH:i:s\Z', 1795075200 + 60 * $minutes);

        return (string) json_encode([
            'format' => Reader::FORMAT,
            'site' => ['timezone' => 'America/Denver', 'unit' => 'F'],
            'rules' => 'us-food-code-2022',
            'batch' => [
                'code' => "VOLUME-$number",
                'tag' => 950 + $number,
                'product' => ['animal' => 'beef', 'form' => 'roast', 'integrity' => 'intact', 'pieces' => 1],
                'events' => [
                    ['id' => 'a', 'at' => $at(0), 'by' => 'ZZ', 'type' => 'cook'],
                    ['id' => 'b', 'at' => $at(300), 'by' => 'ZZ', 'type' => 'reading', 'temp' => ['f' => 203]],
                    ['id' => 'c', 'at' => $at(301), 'by' => 'ZZ', 'type' => 'serve'],
                ],
            ],
        ]);
    }
}
