<?php

declare(strict_types=1);

namespace Verjuicer\Tests\App\Ledger;

use Doctrine\DBAL\Exception\DriverException;
use PHPUnit\Framework\Attributes\DataProvider;
use Symfony\Component\Console\Tester\CommandTester;
use Symfony\Component\Filesystem\Filesystem;
use Verjuicer\App\EntryPoint\Console\VerifyCommand;
use Verjuicer\App\Ledger\Chain\KeyMissing;
use Verjuicer\App\Ledger\Chain\SiteKeys;
use Verjuicer\Tests\App\KitchenTestCase;

/** What decides verdicts is changed by the application, by somebody, or it shows. */
final class AuthoredChangesTest extends KitchenTestCase
{
    public function testWhatTheApplicationChangesHasItsAuthor(): void
    {
        $this->logIn('dell');
        $page = $this->client->request('GET', '/site');
        $this->client->submit($page->selectButton('Save')->form(['elevation_m' => '1650', 'reason' => 'measured']));
        $page = $this->client->request('GET', '/products');
        $page = $this->client->click($page->selectLink('Lamb shoulder')->link());
        $this->client->submit($page->selectButton('Save')->form());
        self::assertSame(0, $this->verify()->getStatusCode(), $this->verify()->getDisplay());
        $this->client->request('GET', '/keeping');
        self::assertSelectorNotExists('#unauthored');
        $last = 'SELECT initials FROM row_author ORDER BY recorded_at DESC, id DESC LIMIT 1';
        self::assertSame('DF', $this->words($last));
    }

    #[DataProvider('tamperings')]
    public function testAPlainUpdateShows(string $table, string $sql): void
    {
        $this->asOwner();
        self::assertGreaterThan(0, $this->connection()->executeStatement($sql));
        $this->connection()->executeStatement('SET ROLE verjuicer_app');
        $verified = $this->verify();
        self::assertSame(1, $verified->getStatusCode());
        self::assertStringContainsString(
            'a change made outside the application, at or before entry',
            $verified->getDisplay(),
        );
        self::assertStringContainsString(": $table ", $verified->getDisplay());
        $this->logIn('dell');
        $page = $this->client->request('GET', '/keeping');
        self::assertStringContainsString($table, $page->filter('[aria-labelledby=unauthored]')->text());
        // A change by the application afterwards signs its own, and nothing of that.
        $page = $this->client->request('GET', '/site');
        $this->client->submit($page->selectButton('Save')->form(['address' => '9 Quarry Lane', 'reason' => 'sign']));
        self::assertStringContainsString(": $table ", $this->verify()->getDisplay());
    }

    /** @return iterable<string, array{string, string}> */
    public static function tamperings(): iterable
    {
        yield 'two thermometers' => [
            'thermometer',
            "UPDATE thermometer SET label = CASE label WHEN 'T1' THEN 'T2x' ELSE 'T1x' END WHERE label IN ('T1', 'T2')",
        ];
        yield 'the elevation' => ['site', 'UPDATE site SET elevation_m = 0'];
        yield 'house rules' => ['site', "UPDATE site SET house_limits = '{\"prep_out_seconds\": 60}'"];
        yield 'a role' => ['account', "UPDATE account SET role = 'owner' WHERE initials = 'IT'"];
        yield 'a recipe' => ['recipe', "UPDATE recipe SET name = name || '!'"];
        yield 'a pit' => ['pit', "UPDATE pit SET name = 'Kiln' WHERE name = 'Drum'"];
        yield 'somebody slipped in' => [
            'account',
            "WITH p AS (INSERT INTO person (id, login, password) VALUES (gen_random_uuid(), 'xx', '') RETURNING id)
             INSERT INTO account (id, site_id, person_id, name, initials, role)
             SELECT gen_random_uuid(), s.id, p.id, 'X', 'XX', 'owner' FROM site s, p",
        ];
        yield 'with an author made up' => [
            'thermometer',
            "WITH changed AS (UPDATE thermometer SET label = 'T1x' WHERE label = 'T1' RETURNING id)
             SELECT count(*) FROM changed; INSERT INTO row_author
             (id, site_id, kept_id, account_id, initials, signature, recorded_at)
             SELECT gen_random_uuid(), site_id, id, null, 'DF', repeat('ab', 64), recorded_at
             FROM row_kept ORDER BY seq DESC LIMIT 1",
        ];
    }

    public function testASignatureThatDidNotComeThroughThePasswordShows(): void
    {
        $this->logIn('dell');
        $page = $this->client->request('GET', '/days/2026-11-23');
        $form = $page->filterXPath("//form[.//input[@name='password']]")->form();
        foreach ($form->all() as $field) {
            if (str_starts_with($field->getName(), 'reason')) {
                $field->setValue('Mark as reviewed');
            }
        }
        $this->client->submit($form, ['password' => 'oak-and-patience']);
        self::assertResponseRedirects();
        self::assertSame(0, $this->verify()->getStatusCode(), $this->verify()->getDisplay());
        $this->connection()->executeStatement(
            "INSERT INTO day_sign (id, site_id, day, at, account_id, initials, position, digest, reasons)
             SELECT gen_random_uuid(), site_id, '2026-11-22', at, account_id, initials, position, digest, '{}'
             FROM day_sign LIMIT 1",
        );
        self::assertStringContainsString('has no proof of the password', $this->verify()->getDisplay());
        self::assertSame(1, $this->verify()->getStatusCode());
    }

    public function testNothingIsRecordedBackInTime(): void
    {
        $this->logIn();
        $this->expectException(DriverException::class);
        $this->expectExceptionMessage('nothing is recorded back in time');
        $this->connection()->executeStatement(
            "INSERT INTO event (id, batch_id, at, type, initials, members, recorded_at, account_id)
             SELECT gen_random_uuid(), batch_id, at, type, initials, members, recorded_at - interval '2 days',
                account_id
             FROM event WHERE type = 'reading' ORDER BY seq DESC LIMIT 1",
        );
    }

    public function testANodeWithoutTheKeySignsNothing(): void
    {
        $site = $this->logIn()->site;
        $keys = $this->service(SiteKeys::class);
        $key = $keys->path($site, '.key');
        (new Filesystem())->remove($key);
        try {
            $keys->sign($site, 'anything');
            self::fail('it signed');
        } catch (KeyMissing) {
        }
        self::assertFileDoesNotExist($key, 'and makes none of its own');
        self::assertStringContainsString(
            'the key on this machine is not the newest recorded key',
            $this->verify()->getDisplay(),
        );
        (new Filesystem())->dumpFile($key, sodium_bin2hex(sodium_crypto_sign_keypair()));
        $this->expectException(KeyMissing::class);
        $keys->sign($site, 'anything');
    }

    public function testWithoutAnySiteOrWithoutTheOneOfAKeyNothingIsVerified(): void
    {
        $site = $this->logIn()->site;
        $keys = $this->service(SiteKeys::class);
        $folder = \dirname($keys->path($site, '.key'));
        (new Filesystem())->dumpFile($folder.'/00000000-0000-7000-8000-000000000001.key', 'x');
        self::assertStringContainsString('00000000-0000-7000-8000-000000000001', $this->verify()->getDisplay());
        self::assertSame(1, $this->verify()->getStatusCode());
        $this->asOwner();
        $this->connection()->executeStatement('SET session_replication_role = replica; DELETE FROM site');
        $verified = $this->verify();
        self::assertSame(1, $verified->getStatusCode());
        self::assertStringContainsString('There is no site here', $verified->getDisplay());
        self::assertStringContainsString($site->id->toRfc4122(), $verified->getDisplay());
    }

    public function testAScanThatWasAlteredIsNotHandedOutAndFound(): void
    {
        $this->logIn('dell');
        $this->asOwner();
        $this->connection()->executeStatement(
            "SET session_replication_role = replica;
             INSERT INTO packet (id, site_id, account_id, at, scope, paper, finished_at, pdf, sha256)
             SELECT '01900000-0000-7000-8000-000000000001', site_id, id, now(),
               '{\"from\": \"2026-11-23\", \"to\": \"2026-11-24\"}', 'A4', now(), 'altered'::bytea, repeat('a', 64)
             FROM account WHERE initials = 'DF'",
        );
        $this->connection()->executeStatement('SET session_replication_role = DEFAULT; SET ROLE verjuicer_app');
        $this->client->request('GET', '/packets/01900000-0000-7000-8000-000000000001/packet.pdf');
        self::assertResponseStatusCodeSame(409);
        self::assertStringContainsString('packet 01900000-0000-7000-8000-000000000001', $this->verify()->getDisplay());
    }

    private function verify(): CommandTester
    {
        $tester = new CommandTester($this->service(VerifyCommand::class));
        $tester->execute([]);

        return $tester;
    }
}
