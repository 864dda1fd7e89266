<?php

declare(strict_types=1);

namespace Verjuicer\Tests\App\Site;

use Doctrine\DBAL\Exception\DriverException;
use PHPUnit\Framework\Attributes\DataProvider;
use Symfony\Component\Security\Core\Exception\UserNotFoundException;
use Symfony\Component\Uid\Uuid;
use Verjuicer\App\Projection\CatchUp;
use Verjuicer\App\Projection\CatchUpHandler;
use Verjuicer\App\Site\People\Account;
use Verjuicer\App\Site\People\Accounts;
use Verjuicer\App\Site\Tenancy\Tenant;
use Verjuicer\Tests\App\KitchenTestCase;

/** The second wall: what the database lets the application's role see and do, whatever a query forgets. */
final class TenancyTest extends KitchenTestCase
{
    /** What belongs to no site, and why. */
    private const OF_NO_SITE = [
        'tenancy_key' => 'the role of the application may not read it at all',
        'session' => 'sealed by the application: SealedSessionsTest',
        'cache_items' => 'how often somebody tried to log in',
        'setup_code' => 'before there is a site',
        'messenger_messages' => 'each carries its site, and is signed',
        'machine_state' => 'backups, of the whole machine',
        'background_process' => 'watch and worker, of the whole machine',
        'doctrine_migration_versions' => 'the shape of the database',
    ];

    public function testEveryTableIsBehindAWallOrSaysWhyNot(): void
    {
        self::assertSame(
            [],
            array_diff(
                $this->names("SELECT relname FROM pg_class WHERE relkind = 'r' AND NOT relrowsecurity
                    AND relnamespace = 'public'::regnamespace"),
                array_keys(self::OF_NO_SITE),
            ),
        );
        self::assertSame(
            [],
            $this->names("SELECT relname FROM pg_class WHERE relkind = 'r' AND relrowsecurity AND NOT EXISTS (
                SELECT FROM pg_policy WHERE polrelid = pg_class.oid)"),
            'a wall without a door is a mistake, too',
        );
    }

    public function testTheRoleOwnsNothingAndChangesNothingRecorded(): void
    {
        self::assertSame([], $this->names("SELECT relname FROM pg_class WHERE relowner = 'verjuicer_app'::regrole"));
        self::assertSame(
            [],
            $this->names("SELECT rolname FROM pg_roles WHERE rolname = 'verjuicer_app'
                AND (rolsuper OR rolbypassrls OR rolcreaterole OR rolcreatedb)"),
        );
        // Recorded is what a trigger refuses to change.
        self::assertSame(
            [],
            $this->names("SELECT DISTINCT c.relname FROM pg_trigger t JOIN pg_class c ON c.oid = t.tgrelid
                WHERE t.tgname LIKE '%only_added' AND (has_table_privilege('verjuicer_app', c.oid, 'UPDATE')
                  OR has_table_privilege('verjuicer_app', c.oid, 'DELETE')
                  OR has_table_privilege('verjuicer_app', c.oid, 'TRUNCATE')
                  OR NOT has_table_privilege('verjuicer_app', c.oid, 'INSERT'))"),
        );
        $this->expectException(DriverException::class);
        $this->expectExceptionMessage('must be owner');
        $this->connection()->executeStatement('ALTER TABLE event DISABLE TRIGGER ALL');
    }

    public function testInAnotherSiteNoRowOfThisOneIsSeenOrChanged(): void
    {
        $this->logIn();
        $this->keep('7 171');
        $tables = $this->names("SELECT relname FROM pg_class WHERE relkind = 'r' AND relrowsecurity");
        $this->asOwner();
        $full = array_values(
            array_filter($tables, fn (string $table): bool => $this->number("SELECT count(*) FROM $table") > 0),
        );
        self::assertGreaterThan(20, \count($full));
        $this->connection()->executeStatement('SET ROLE verjuicer_app');
        $this->service(Tenant::class)->enter(Uuid::v7());
        foreach ($tables as $table) {
            self::assertSame(0, $this->connection()->fetchOne("SELECT count(*) FROM $table"), $table);
            $mayChange = $this->connection()->fetchOne("SELECT has_table_privilege('$table', 'DELETE')");
            self::assertSame(0, $mayChange === true ? $this->connection()->executeStatement("DELETE FROM $table") : 0);
        }
    }

    /** Rows that name the site they are not written in. */
    #[DataProvider('foreign')]
    public function testNothingIsWrittenIntoAnotherSite(string $sql): void
    {
        $batch = $this->words('SELECT id FROM batch WHERE tag = 7');
        $site = $this->words('SELECT id FROM site');
        $account = $this->words("SELECT id FROM account WHERE initials = 'MR'");
        $person = $this->words("SELECT id FROM person WHERE login = 'mara'");
        $this->service(Tenant::class)->enter(Uuid::v7());
        $this->expectException(DriverException::class);
        $this->expectExceptionMessage('row-level security');
        $this->connection()->executeStatement(
            str_replace(
                ['{batch}', '{site}', '{account}', '{person}'],
                ["'$batch'::uuid", "'$site'::uuid", "'$account'::uuid", "'$person'::uuid"],
                $sql,
            ),
        );
    }

    /** @return iterable<string, array{string}> */
    public static function foreign(): iterable
    {
        yield 'an entry' => [
            'INSERT INTO event (id, batch_id, at, recorded_at, account_id, initials, type, members)
             VALUES (gen_random_uuid(), {batch}, now(), now(), {account}, \'MR\', \'note\', \'{"text": "x"}\')',
        ];
        yield 'a supplier' => ["INSERT INTO supplier (id, site_id, name) VALUES (gen_random_uuid(), {site}, 'x')"];
        yield 'somebody' => [
            "INSERT INTO account (id, site_id, person_id, name, initials, role)
             VALUES (gen_random_uuid(), {site}, {person}, 'x', 'XX', 'owner')",
        ];
        yield 'a link' => [
            "INSERT INTO chain_link (site_id, position, kind, row_id, recorded_at, hash)
             VALUES ({site}, 999999, 'event', gen_random_uuid(), now(), 'x')",
        ];
    }

    /** Whoever has the role of the application, but not its key, as by an injected statement. */
    public function testASiteCannotBeChosenWithoutTheKeyOfTheApplication(): void
    {
        $site = $this->words('SELECT id FROM site');
        $person = $this->words("SELECT id FROM person WHERE login = 'mara'");
        self::assertGreaterThan(0, $this->number('SELECT count(*) FROM batch'));
        $seal = $this->words("SELECT current_setting('verjuicer.seal')");
        $this->service(Tenant::class)->enter(Uuid::v7());
        $set = 'SELECT set_config(?, ?, false)';
        $this->connection()->fetchOne($set, ['verjuicer.site', $site]);
        foreach (['', $seal, str_repeat('0', 64)] as $number => $forged) {
            $this->connection()->fetchOne($set, ['verjuicer.person', $number === 1 ? $person : '']);
            $this->connection()->fetchOne($set, ['verjuicer.seal', $forged]);
            foreach (['batch', 'site', 'account', 'person'] as $table) {
                $seen = $this->connection()->fetchOne("SELECT count(*) FROM $table");
                self::assertSame(0, $seen, "$number: $table");
            }
        }
        $this->connection()->fetchOne($set, ['verjuicer.token', 'mara']);
        self::assertSame(
            0,
            $this->connection()->fetchOne('SELECT count(*) FROM person'),
            'nor a person by their login',
        );
        $this->expectException(DriverException::class);
        $this->expectExceptionMessage('permission denied');
        $this->connection()->fetchOne('SELECT inner_key FROM tenancy_key');
    }

    public function testPasswordsOfPeopleOfOtherSitesAreNotSeen(): void
    {
        $all = $this->names('SELECT login FROM person');
        self::assertContains('mara', $all);
        $this->service(Tenant::class)->enter(Uuid::v7());
        self::assertSame([], $this->names('SELECT password FROM person'));
        self::assertSame(0, $this->connection()->executeStatement("UPDATE person SET password = 'mine'"));
        self::assertNotNull($this->service(Accounts::class)->loadUserByIdentifier('MARA'), 'who logs in is found');
    }

    /** The seal is of the secret both were given: with another one nobody would see anything. */
    public function testADatabaseWithAnotherKeyIsSaid(): void
    {
        self::assertTrue($this->service(Tenant::class)->isTrusted());
        $this->asOwner();
        $this->connection()->executeStatement("UPDATE tenancy_key SET inner_key = '\\x00'");
        $this->connection()->executeStatement('SET ROLE verjuicer_app');
        self::assertFalse($this->service(Tenant::class)->isTrusted());
        $this->client->request('GET', '/readyz');
        self::assertStringContainsString('"tenancy":false', (string) $this->client->getResponse()->getContent());
    }

    public function testWhoeverWorksInSeveralSitesSeesWhereAndNoMore(): void
    {
        $person = $this->words("SELECT id FROM person p WHERE p.login = 'mara'");
        $this->service(Tenant::class)->recognise(Uuid::fromString($person));
        self::assertSame(['MR'], $this->connection()->fetchFirstColumn('SELECT initials FROM account'));
        self::assertSame(1, $this->connection()->fetchOne('SELECT count(*) FROM site'));
        self::assertSame(0, $this->connection()->fetchOne('SELECT count(*) FROM batch'));
        self::assertSame(0, $this->connection()->executeStatement("UPDATE account SET role = 'owner'"));
    }

    public function testASessionOfAVersionBeforeTheSitesIsOver(): void
    {
        $mara = $this->logIn();
        $old = \sprintf(
            'O:%d:"%s":4:{s:2:"id";%ss:5:"login";s:4:"mara";s:8:"password";s:1:"x";s:4:"role";%s}',
            \strlen(Account::class),
            Account::class,
            serialize($mara->id),
            serialize($mara->role),
        );
        $account = unserialize($old);
        self::assertInstanceOf(Account::class, $account);
        $this->expectException(UserNotFoundException::class);
        $this->service(Accounts::class)->refreshUser($account);
    }

    /** What is left to the worker by nobody in particular is done in its site all the same. */
    public function testTheWorkerCatchesUpInTheSiteOfTheMessage(): void
    {
        $this->logIn();
        $site = $this->words('SELECT id FROM site');
        $this->connection()->executeStatement('UPDATE projection_state SET made = 0');
        $this->service(Tenant::class)->enter(Uuid::v7());
        $this->service(CatchUpHandler::class)(new CatchUp($site));
        self::assertSame(0, $this->number('SELECT count(*) FROM projection_state WHERE made < head'));
    }

    /** @return list<string> */
    private function names(string $sql): array
    {
        /** @var list<string> */
        return $this->connection()->fetchFirstColumn($sql);
    }

    public function testNoFunctionIsForEveryRole(): void
    {
        $this->asOwner();
        self::assertSame([], $this->connection()->fetchFirstColumn(
            "SELECT p.proname FROM pg_proc p WHERE p.pronamespace = 'public'::regnamespace AND EXISTS (
                SELECT 1 FROM aclexplode(coalesce(p.proacl, acldefault('f', p.proowner))) a WHERE a.grantee = 0
            )",
        ));
    }
}
