<?php

declare(strict_types=1);

namespace Verjuicer\Tests\App\Reporting;

use PHPUnit\Framework\Attributes\DataProvider;
use Symfony\Component\Console\Tester\CommandTester;
use Symfony\Component\Process\Process;
use Symfony\Component\Uid\Uuid;
use Verjuicer\App\EntryPoint\Console\ExportCommand;
use Verjuicer\App\EntryPoint\Console\RotateKeysCommand;
use Verjuicer\App\EntryPoint\Console\VerifyCommand;
use Verjuicer\App\Ledger\Chain\SiteKeys;
use Verjuicer\App\Platform\Now;
use Verjuicer\App\Reporting\Packet\Packets;
use Verjuicer\App\Reporting\Packet\PacketScope;
use Verjuicer\Tests\App\KitchenTestCase;

/** A packet handed over as a file is checked without the application: by the command that ships. */
final class ProofTest extends KitchenTestCase
{
    /** @var list<string> */
    private array $files = [];

    protected function tearDown(): void
    {
        parent::tearDown();
        array_map(unlink(...), $this->files);
    }

    public function testAllThatTheKitchenRecordedHoldsInTheHandsOfAnInspector(): void
    {
        $this->logIn('ike');
        $this->keep('7 173');
        $path = $this->path(7);
        $this->client->request('GET', $path.'/facts');
        $packet = $this->packet();
        [$code, $said] = $this->checked($packet);
        self::assertSame(0, $code, $said);
        self::assertStringContainsString('All holds', $said);
        self::assertMatchesRegularExpression('/^1[4-9] batches judged anew, \d{3} events compared/m', $said);
        $key = $this->service(SiteKeys::class)->publicKey($this->logIn('ike')->site);
        self::assertSame(0, $this->checked($packet, "--key=$key")[0]);
        self::assertSame(1, $this->checked($packet, '--key='.strrev($key))[0]);
    }

    public function testAnExportOfRecordsHasItsProofToo(): void
    {
        $this->logIn('ike');
        $this->keep('7 173');
        $proof = $this->exported();
        [$code, $said] = $this->checked($proof);
        self::assertSame(0, $code, $said);
        self::assertSame(1, $this->checked(str_replace('"f":173', '"f":174', $proof))[0]);
    }

    /** @param \Closure(string): string $alter */
    #[DataProvider('alterations')]
    public function testAPacketThatWasAlteredDoesNotHold(\Closure $alter, string $word): void
    {
        [$code, $said] = $this->checked($alter($this->packet('Duck')));
        self::assertSame(1, $code);
        self::assertStringContainsString($word, $said);
    }

    /** @return iterable<string, array{\Closure(string): string, string}> */
    public static function alterations(): iterable
    {
        yield 'a byte of a page' => [
            static fn (string $pdf): string => substr_replace($pdf, 'X', 2000, 1),
            'not signed by the key',
        ];
        yield 'something behind it' => [static fn (string $pdf): string => $pdf."%\n", 'not signed by the key'];
        yield 'saved anew, without what was attached' => [
            static fn (string $pdf): string => str_replace('(proof.ndjson)', '(proof.txt)', $pdf),
            'no proof in this PDF',
        ];
    }

    /** @param list<string> $tampering */
    #[DataProvider('tamperings')]
    public function testAPacketMadeAfterTamperingIsNoProof(array $tampering, string $said): void
    {
        $this->asOwner();
        $this->connection()->executeStatement('SET session_replication_role = replica');
        foreach ($tampering as $sql) {
            self::assertGreaterThan(0, $this->connection()->executeStatement($sql), $sql);
        }
        $this->connection()->executeStatement('SET session_replication_role = DEFAULT');
        [$code, $words] = $this->checked($this->exported());
        self::assertSame(1, $code);
        self::assertStringContainsString($said, $words);
        self::assertStringContainsString('the application itself said so', $words);
    }

    /** @return iterable<string, array{list<string>, string}> */
    public static function tamperings(): iterable
    {
        $reading = "(SELECT id FROM event WHERE type = 'reading' ORDER BY seq OFFSET 20 LIMIT 1)";
        yield 'a temperature' => [
            ["UPDATE event SET members = jsonb_set(members, '{temp}', '{\"f\": 165}') WHERE id = $reading"],
            'a row is not the one that was written down',
        ];
        yield 'two thermometers exchanged' => [
            [
                "UPDATE thermometer SET label = 'T0' WHERE label = 'T1'",
                "UPDATE thermometer SET label = 'T1' WHERE label = 'T2'",
                "UPDATE thermometer SET label = 'T2' WHERE label = 'T0'",
            ],
            'a check of a thermometer is not as it was written down',
        ];
        yield 'a batch made whole muscle' => [
            ["UPDATE batch SET integrity = CASE integrity WHEN 'intact' THEN 'non_intact' ELSE 'intact' END"],
            'a row is not the one that was written down',
        ];
        yield 'an event put in' => [
            [
                'INSERT INTO event (id, batch_id, at, recorded_at, account_id, initials, type, members) '
                .'SELECT gen_random_uuid(), batch_id, at, recorded_at, account_id, initials, type, members '
                ."FROM event WHERE id = $reading",
            ],
            'a record says what nobody wrote down',
        ];
        yield 'the elevation' => [
            ['UPDATE site SET elevation_m = 10'],
            'the settings of the kitchen are none it ever had',
        ];
    }

    public function testThePageThatChecksIsHandedOutWithoutALogin(): void
    {
        $this->nobody();
        $this->client->request('GET', '/check-packet.html');
        self::assertResponseIsSuccessful();
        $page = (string) $this->client->getResponse()->getContent();
        self::assertStringContainsString('verjuicer-link/2', $page, 'its script is inside');
        self::assertStringContainsString("default-src 'none'", $page);
        self::assertDoesNotMatchRegularExpression('/(src|href)="(?!data:)/', $page, 'it fetches nothing');
        self::assertStringContainsString(
            'attachment',
            (string) $this->client->getResponse()->headers->get('Content-Disposition'),
        );
    }

    public function testAKeyIsChangedByAnEventAndTheOneBeforeVouchesForIt(): void
    {
        $site = $this->logIn('ike')->site;
        $keys = $this->service(SiteKeys::class);
        $before = $keys->publicKey($site);
        $this->packet('Duck');
        $this->asOwner();
        $rotate = new CommandTester($this->service(RotateKeysCommand::class));
        self::assertSame(2, $rotate->execute([]), 'it asks why');
        self::assertSame(0, $rotate->execute(['--reason' => 'a new machine']));
        $after = $keys->publicKey($site);
        self::assertNotSame($before, $after);
        self::assertSame([$before, $after], $keys->publicKeys($site));
        $verify = new CommandTester($this->service(VerifyCommand::class));
        self::assertSame(0, $verify->execute([]), $verify->getDisplay());
        self::assertSame(0, $this->checked($this->packet('Duck'), "--key=$after")[0]);
        // Whoever owns the database says that another key was there all along.
        $this->asOwner();
        $this->connection()->executeStatement(
            "INSERT INTO site_key (id, site_id, public_key, before_key, vouched, reason, recorded_at)
             VALUES (gen_random_uuid(), '{$site->id->toRfc4122()}', repeat('a', 64), '$after', '', 'x', now())",
        );
        self::assertSame(1, $verify->execute([]));
        self::assertStringContainsString('not the newest recorded key', $verify->getDisplay());
    }

    public function testALostKeyIsFoundAndSaidWithItsReason(): void
    {
        $site = $this->logIn('ike')->site;
        $keys = $this->service(SiteKeys::class);
        unlink($keys->path($site, '.key'));
        $this->asOwner();
        $verify = new CommandTester($this->service(VerifyCommand::class));
        self::assertSame(1, $verify->execute([]));
        self::assertStringContainsString('not the newest recorded key', $verify->getDisplay());
        $rotate = new CommandTester($this->service(RotateKeysCommand::class));
        self::assertSame(0, $rotate->execute(['--reason' => 'the disk failed', '--lost' => true]));
        self::assertSame(0, $verify->execute([]), $verify->getDisplay());
        self::assertStringContainsString('did not approve it: the disk failed', $verify->getDisplay());
        [$code, $said] = $this->checked($this->packet('Duck'));
        self::assertSame(1, $code);
        self::assertStringContainsString('the one before does not vouch for the next (the disk failed)', $said);
    }

    /** @return string what a packet has attached, without the paper */
    private function exported(): string
    {
        $this->asOwner();
        $export = new CommandTester($this->service(ExportCommand::class));
        self::assertSame(0, $export->execute(['what' => 'proof', '--login' => 'ike']));

        return $export->getDisplay();
    }

    /** @return string the PDF */
    private function packet(string $product = ''): string
    {
        $id = Uuid::v7();
        $packets = $this->service(Packets::class);
        $packets->ask(
            $id,
            $this->logIn('ike'),
            $this->service(Now::class)->instant(),
            new PacketScope('2020-01-01', '2100-01-01', product: $product),
            'Letter',
        );
        $packet = $packets->find($id->toRfc4122());
        self::assertNotNull($packet);
        self::assertNull($packet->problem);

        return $packets->pdf($packet);
    }

    /** @return array{int, string} exit code and what it said */
    private function checked(string $pdf, string ...$options): array
    {
        $this->files[] = $file = (string) tempnam(sys_get_temp_dir(), 'packet');
        file_put_contents($file, $pdf);
        $process = new Process([\dirname(__DIR__, 3).'/bin/verify-packet', $file, ...$options]);
        $process->run();

        return [(int) $process->getExitCode(), $process->getOutput().$process->getErrorOutput()];
    }
}
