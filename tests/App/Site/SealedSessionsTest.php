<?php

declare(strict_types=1);

namespace Verjuicer\Tests\App\Site;

use Symfony\Component\HttpFoundation\Session\Storage\Handler\PdoSessionHandler;
use Verjuicer\App\Site\People\SealedSessions;
use Verjuicer\Tests\App\KitchenTestCase;

/** Whoever reads or writes the table of sessions takes none over. */
final class SealedSessionsTest extends KitchenTestCase
{
    public function testASessionComesBackAndItsRowSaysNothing(): void
    {
        $sessions = $this->sessions('of the application');
        self::assertSame('', $sessions->read('a-cookie'));
        self::assertTrue($sessions->write('a-cookie', 'login|mara'));
        self::assertSame('login|mara', $sessions->read('a-cookie'));
        self::assertTrue($sessions->validateId('a-cookie'));
        $row = $this->row();
        self::assertStringNotContainsString('a-cookie', $row['sess_id']);
        self::assertStringNotContainsString('mara', $row['sess_data']);
        self::assertTrue($sessions->updateTimestamp('a-cookie', 'login|mara'));
        self::assertSame('login|mara', $sessions->read('a-cookie'));
        $sessions->destroy('a-cookie');
        self::assertSame('', $sessions->read('a-cookie'));
    }

    public function testARowMovedToAnotherSessionIsNotRead(): void
    {
        $sessions = $this->sessions('of the application');
        $sessions->write('of the owner', 'login|ona');
        $owner = $this->row()['sess_data'];
        $sessions->write('of a thief', 'login|ike');
        $this->connection()->executeStatement("UPDATE session SET sess_data = decode(?, 'hex')", [bin2hex($owner)]);
        self::assertSame('login|ona', $sessions->read('of the owner'));
        self::assertSame('', $sessions->read('of a thief'));
        self::assertSame('', $this->sessions('of another application')->read('of the owner'));
    }

    private function sessions(string $secret): SealedSessions
    {
        $pdo = $this->connection()->getNativeConnection();
        self::assertInstanceOf(\PDO::class, $pdo);
        $sessions = new SealedSessions(
            new PdoSessionHandler($pdo, ['db_table' => 'session', 'lock_mode' => PdoSessionHandler::LOCK_NONE]),
            $secret,
        );
        $sessions->open('', 'verjuicer');

        return $sessions;
    }

    /** @return array{sess_id: string, sess_data: string} */
    private function row(): array
    {
        $sql = "SELECT sess_id, encode(sess_data, 'hex') AS sess_data FROM session";
        $row = $this->connection()->fetchAssociative($sql);
        self::assertIsArray($row);
        \assert(\is_string($row['sess_id']) && \is_string($row['sess_data']));

        return ['sess_id' => $row['sess_id'], 'sess_data' => (string) hex2bin($row['sess_data'])];
    }
}
