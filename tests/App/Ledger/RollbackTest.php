<?php

declare(strict_types=1);

namespace Verjuicer\Tests\App\Ledger;

use Doctrine\ORM\EntityManagerInterface;
use Symfony\Component\Console\Tester\CommandTester;
use Symfony\Component\Filesystem\Filesystem;
use Verjuicer\App\EntryPoint\Console\CarryRollbackCommand;
use Verjuicer\App\EntryPoint\Console\SaveRollbackCommand;
use Verjuicer\App\EntryPoint\Console\VerifyCommand;
use Verjuicer\App\Ledger\Chain\SealLog;
use Verjuicer\App\Platform\Now;
use Verjuicer\Tests\App\KitchenTestCase;

/** A database that is put back to an earlier moment: what was recorded later comes back, and the chain says why. */
final class RollbackTest extends KitchenTestCase
{
    private string $folder = '';

    protected function setUp(): void
    {
        parent::setUp();
        $this->folder = sys_get_temp_dir().'/verjuicer-rollback-'.bin2hex(random_bytes(6));
    }

    protected function tearDown(): void
    {
        parent::tearDown();
        (new Filesystem())->remove($this->folder);
    }

    public function testLaterEntriesAreCarriedOverAndTheChainIsExplained(): void
    {
        $site = $this->logIn('ike')->site;
        $since = $this->service(Now::class)->instant()->rfc3339();
        $this->service(SealLog::class)->note($site);
        $this->connection()->executeStatement('SAVEPOINT upgraded');
        self::mockTime('+60 seconds');
        $this->keep('7 173.5');
        self::assertResponseRedirects();
        $this->keep('21 hold cabinet', isSure: true);
        self::assertResponseRedirects();
        $this->service(SealLog::class)->note($site);
        $later = "SELECT string_agg(id::text, ',' ORDER BY id) FROM event WHERE recorded_at > '$since'";
        $ids = $this->words($later);
        self::assertNotSame('', $ids);
        $save = new CommandTester($this->service(SaveRollbackCommand::class));
        self::assertSame(0, $save->execute(['since' => $since, 'folder' => $this->folder]), $save->getDisplay());
        self::assertSame('0700', substr(\sprintf('%o', (int) fileperms($this->folder)), -4));

        // As a restore does: the database is of that moment, what is beside it is not.
        $this->connection()->executeStatement('ROLLBACK TO SAVEPOINT upgraded');
        $this->service(EntityManagerInterface::class)->clear();
        $this->asOwner();
        $verify = new CommandTester($this->service(VerifyCommand::class));
        self::assertSame(1, $verify->execute([]));
        self::assertStringContainsString('Entries were removed or replaced', $verify->getDisplay());

        self::mockTime('+1 hour');
        $this->connection()->executeStatement('SET ROLE verjuicer_app');
        $carry = new CommandTester($this->service(CarryRollbackCommand::class));
        self::assertSame(0, $carry->execute(['folder' => $this->folder]), $carry->getDisplay());
        self::assertStringContainsString('events imported', $carry->getDisplay());
        $this->asOwner();
        self::assertSame($ids, $this->words(str_replace("recorded_at > '$since'", "id IN ('"
            .str_replace(',', "','", $ids)."')", $later)), 'the same entries, under their ids');
        self::assertSame(0, $verify->execute([]), $verify->getDisplay());
        self::assertStringContainsString('the database was restored from entry', $verify->getDisplay());
        self::assertSame(0, $carry->execute(['folder' => $this->folder]));
        self::assertStringContainsString('0 events imported', $carry->getDisplay(), 'once');
        self::assertSame(1, $this->number('SELECT count(*) FROM chain_rollback'));
    }

    public function testWithoutTheKeyNoCutIsExplained(): void
    {
        $site = $this->logIn('ike')->site;
        $this->connection()->executeStatement('SAVEPOINT before');
        $this->keep('7 173.5');
        $this->service(SealLog::class)->note($site);
        $cut = $this->number('SELECT max(position) FROM chain_link');
        $this->connection()->executeStatement('ROLLBACK TO SAVEPOINT before');
        $this->asOwner();
        $this->connection()->executeStatement(
            'INSERT INTO chain_rollback (id, site_id, kept_position, cut_position, cut_digest, saved_at, signature, '
            ."recorded_at) VALUES (gen_random_uuid(), ?, 1, ?, repeat('a', 64), now() + interval '1 day', "
            ."repeat('b', 128), ?)",
            [$site->id->toRfc4122(), $cut, $this->service(Now::class)->instant()->rfc3339()],
        );
        $verify = new CommandTester($this->service(VerifyCommand::class));
        self::assertSame(1, $verify->execute([]));
        self::assertStringContainsString('Entries were removed or replaced', $verify->getDisplay());
    }

    public function testAFolderWithNothingSavedSaysSo(): void
    {
        $carry = new CommandTester($this->service(CarryRollbackCommand::class));
        self::assertSame(2, $carry->execute(['folder' => $this->folder]));
        $save = new CommandTester($this->service(SaveRollbackCommand::class));
        self::assertSame(2, $save->execute(['since' => 'some time', 'folder' => $this->folder]));
    }
}
