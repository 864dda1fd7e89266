<?php

declare(strict_types=1);

namespace Verjuicer\Tests\App\Ledger;

use PHPUnit\Framework\Attributes\DataProvider;
use Symfony\Component\Console\Tester\CommandTester;
use Verjuicer\App\EntryPoint\Console\VerifyCommand;
use Verjuicer\App\Ledger\Chain\ChainVerifier;
use Verjuicer\App\Ledger\Chain\SealLog;
use Verjuicer\App\Ledger\Chain\SiteChain;
use Verjuicer\App\Reporting\Exchange\RecordExport;
use Verjuicer\Core\Measure\Instant;
use Verjuicer\Tests\App\KitchenTestCase;

/** Whatever is altered behind the application's back, the chain names the first place where it shows. */
final class SiteChainTest extends KitchenTestCase
{
    public function testEveryRowIsLinkedOnceInTheOrderOfCommits(): void
    {
        $site = $this->logIn()->site;
        $chain = $this->service(SiteChain::class);
        self::assertNull($this->service(ChainVerifier::class)->firstBreak($site));
        $rows = $this->number(
            'SELECT (SELECT count(*) FROM batch) + (SELECT count(*) FROM event) + (SELECT count(*) '
            .'FROM site_event) + (SELECT count(*) FROM lot) + (SELECT count(*) '
            .'FROM batch_lot) + (SELECT count(*) FROM thermometer_check) '
            .'+ (SELECT count(*) FROM alarm_event) + (SELECT count(*) FROM row_kept) '
            .'+ (SELECT count(*) FROM day_close) + (SELECT count(*) FROM site_key) '
            .'+ (SELECT count(*) FROM procedure_version) + (SELECT count(*) FROM row_author)',
        );
        self::assertSame($rows, $chain->length($site));
        $this->keep('7 173');
        self::assertSame($rows + 1, $chain->length($site));
        $last = $this->connection()->fetchAssociative(
            'SELECT kind, row_id FROM chain_link ORDER BY position DESC LIMIT 1',
        );
        self::assertSame(
            ['kind' => 'event', 'row_id' => $this->words('SELECT id::text FROM event ORDER BY seq DESC LIMIT 1')],
            $last,
        );
        self::assertNull($this->service(ChainVerifier::class)->firstBreak($site));
        $tester = new CommandTester($this->service(VerifyCommand::class));
        self::assertSame(0, $tester->execute([]));
        self::assertStringContainsString($rows + 1 .' links, all hold', $tester->getDisplay());
    }

    /** @param list<string> $tampering */
    #[DataProvider('tamperings')]
    public function testTamperingIsFound(string $what, string $kind, array $tampering): void
    {
        $site = $this->logIn()->site;
        // Whoever owns the database can switch its triggers off; the chain is for that.
        $this->asOwner();
        $this->connection()->executeStatement('SET session_replication_role = replica');
        foreach ($tampering as $sql) {
            self::assertGreaterThan(0, $this->connection()->executeStatement($sql), $sql);
        }
        $this->connection()->executeStatement('SET session_replication_role = DEFAULT');
        $break = $this->service(ChainVerifier::class)->firstBreak($site);
        self::assertSame([$what, $kind], [$break?->what, $break?->kind]);
        $tester = new CommandTester($this->service(VerifyCommand::class));
        self::assertSame(1, $tester->execute([]));
        self::assertStringContainsString($break->rowId ?? '?', $tester->getDisplay());
    }

    /** @return iterable<string, array{string, string, list<string>}> */
    public static function tamperings(): iterable
    {
        $some = "(SELECT id FROM event WHERE type = 'reading' ORDER BY seq OFFSET 20 LIMIT 1)";
        yield 'a temperature' => [
            'altered',
            'event',
            ["UPDATE event SET members = jsonb_set(members, '{temp}', '{\"f\": 165}') WHERE id = $some"],
        ];
        yield 'a time by a second' => [
            'altered',
            'event',
            ["UPDATE event SET at = at - interval '1 second' WHERE id = $some"],
        ];
        yield 'when it was written down' => [
            'altered',
            'event',
            ["UPDATE event SET recorded_at = at WHERE id = $some"],
        ];
        yield 'who' => ['altered', 'event', ["UPDATE event SET initials = 'XX' WHERE id = $some"]];
        yield 'a reason' => ['altered', 'event', ["UPDATE event SET reason = 'none' WHERE id = $some"]];
        yield 'an event removed' => ['missing_row', 'event', ["DELETE FROM event WHERE id = $some"]];
        yield 'an event removed with its link' => [
            'missing_link',
            'event',
            ["DELETE FROM chain_link WHERE row_id = $some", "DELETE FROM event WHERE id = $some"],
        ];
        yield 'an event slipped in' => [
            'not_chained',
            'event',
            [
                'INSERT INTO event (id, batch_id, at, recorded_at, account_id, initials, type, members) '
                .'SELECT gen_random_uuid(), batch_id, at, recorded_at, account_id, initials, type, members '
                ."FROM event WHERE id = $some",
            ],
        ];
        yield 'a batch made smaller' => ['altered', 'batch', ['UPDATE batch SET raw_grams = 4400 WHERE tag = 3']];
        yield 'a lot' => ['altered', 'lot', ["UPDATE lot SET is_accepted = true WHERE number = 'NF-903'"]];
        yield 'what a batch took from a lot' => [
            'altered',
            'batch_lot',
            ['UPDATE batch_lot SET grams = grams - 1 WHERE batch_id = (SELECT id FROM batch WHERE tag = 18)'],
        ];
        yield 'a lot it never came from' => [
            'not_chained',
            'batch_lot',
            [
                'INSERT INTO batch_lot (batch_id, lot_id, pieces, grams) '
."SELECT b.id, l.id, 1, 1 FROM batch b, lot l WHERE b.tag = 3 AND l.number = 'RR-4471'",
            ],
        ];
        yield 'a thermometer check' => [
            'altered',
            'thermometer_check',
            ["UPDATE thermometer_check SET read = '{\"f\": 32}' WHERE read = '{\"f\": 36.8}'"],
        ];
        yield 'a pit reading' => [
            'altered',
            'site_event',
            ["UPDATE site_event SET members = '{\"temp\": {\"f\": 275}}' WHERE members = '{\"temp\": {\"f\": 226}}'"],
        ];
        yield 'a link' => ['altered_link', 'event', ["UPDATE chain_link SET hash = sha256('x') WHERE row_id = $some"]];
    }

    /**
     * What a walk over the links alone did not see.
     *
     * @param list<string> $tampering
     */
    #[DataProvider('unseen')]
    public function testWhatNoLinkShowedIsFoundAllTheSame(array $tampering, string $said): void
    {
        $site = $this->logIn()->site;
        $this->keep('7 173');
        $this->connection()->executeStatement(
            'INSERT INTO packet (id, site_id, account_id, at, scope, paper) '
            ."SELECT gen_random_uuid(), site_id, id, now(), '{}', 'A4' FROM account WHERE initials = 'MR'",
        );
        $this->service(SealLog::class)->note($site);
        $tester = new CommandTester($this->service(VerifyCommand::class));
        $this->asOwner();
        self::assertSame(0, $tester->execute([]), $tester->getDisplay());
        $this->connection()->executeStatement('SET session_replication_role = replica');
        foreach ($tampering as $sql) {
            $this->connection()->executeStatement($sql);
        }
        $this->connection()->executeStatement('SET session_replication_role = DEFAULT');
        self::assertSame(1, $tester->execute([]));
        self::assertStringContainsString($said, $tester->getDisplay());
    }

    /** @return iterable<string, array{list<string>, string}> */
    public static function unseen(): iterable
    {
        $rehash = <<<'SQL'
            DO $$
            DECLARE l RECORD; before BYTEA := ''::bytea; made BYTEA; of_row BYTEA;
            BEGIN
                FOR l IN SELECT * FROM chain_link WHERE site_id = (SELECT id FROM site WHERE is_practice)
                  ORDER BY position LOOP
                    of_row := sha256(convert_to(chain_canonical(l.kind, l.row_id), 'UTF8'));
                    made := sha256(before || convert_to(chain_words(l.site_id, l.position, l.kind, l.row_id,
                      l.recorded_at, of_row), 'UTF8'));
                    UPDATE chain_link SET hash = made, row_digest = of_row
                      WHERE site_id = l.site_id AND position = l.position;
                    UPDATE day_sign SET digest = encode(made, 'hex') WHERE position = l.position;
                    UPDATE day_close SET digest = encode(made, 'hex') WHERE last_position = l.position;
                    before := made;
                END LOOP;
            END
            $$
            SQL;
        $newest = "(SELECT row_id FROM chain_link WHERE kind = 'event' ORDER BY position DESC LIMIT 1)";
        yield 'the newest links and their rows cut off' => [
            ["DELETE FROM event WHERE id = $newest", 'DELETE FROM chain_link WHERE position = '
                .'(SELECT max(position) FROM chain_link)'],
            'Entries were removed or replaced',
        ];
        yield 'a value altered and everything hashed anew' => [
            ["UPDATE event SET members = jsonb_set(members, '{temp}', '{\"f\": 165}') WHERE id = $newest", $rehash],
            'Entries were removed or replaced',
        ];
        yield 'the verdict on the board' => [
            ["UPDATE board_lane SET verdict = 'met' WHERE verdict = 'broken'"],
            'differently than its record',
        ];
        yield 'the elevation' => [['UPDATE site SET elevation_m = 10'], 'elevation_m was 1610'];
        yield 'the rule set' => [["UPDATE site SET rule_set = 'other'"], 'rule_set was'];
        yield 'a name' => [["UPDATE account SET name = 'Somebody' WHERE initials = 'MR'"], 'name was "Mara Rook"'];
        yield 'a role' => [["UPDATE account SET role = 'owner' WHERE initials = 'IT'"], 'role was "crew"'];
        yield 'two thermometers exchanged' => [
            [
                "UPDATE thermometer SET label = 'T0' WHERE label = 'T1'",
                "UPDATE thermometer SET label = 'T1' WHERE label = 'T2'",
                "UPDATE thermometer SET label = 'T2' WHERE label = 'T0'",
            ],
            'label was "T',
        ];
        yield 'a product made intact' => [
            ["UPDATE product SET integrity = CASE integrity WHEN 'intact' THEN 'non_intact' ELSE 'intact' END"],
            'integrity was',
        ];
        yield 'a recipe' => [
            ["UPDATE recipe SET name = 'Other' WHERE name = (SELECT min(name) FROM recipe)"],
            'name was',
        ];
        yield 'a pit' => [["UPDATE pit SET kind = 'convection'"], 'kind was'];
        yield 'a unit' => [["UPDATE hold_unit SET name = 'Other' WHERE name = 'cabinet'"], 'name was "cabinet"'];
        yield 'the chain emptied' => [['DELETE FROM chain_link'], 'Entries were removed or replaced'];
        yield 'two links exchanged' => [
            [
                'UPDATE chain_link SET position = -1 WHERE position = 30',
                'UPDATE chain_link SET position = 30 WHERE position = 31',
                'UPDATE chain_link SET position = 31 WHERE position = -1',
            ],
            'breaks at entry 30',
        ];
        yield 'the order of events' => [
            ['UPDATE event SET seq = DEFAULT WHERE seq = (SELECT min(seq) FROM event)'],
            'the row or its entry was altered',
        ];
        yield 'a supplier' => [
            ["UPDATE supplier SET name = 'Other' WHERE name = (SELECT min(name) FROM supplier)"],
            'name was',
        ];
        yield 'a thermometer removed' => [
            ["DELETE FROM thermometer WHERE label = 'T3'"],
            'it was removed outside the application',
        ];
        yield 'a packet removed' => [
            ['DELETE FROM packet'],
            'it was removed outside the application',
        ];
        yield 'the time of a link' => [
            ["UPDATE chain_link SET recorded_at = recorded_at + interval '1 second' WHERE position = 20"],
            'the entry was altered: its position, time or kind',
        ];
    }

    public function testSomethingThatIsChangedInTheApplicationIsKeptAsItIsThen(): void
    {
        $site = $this->logIn('dell')->site;
        $before = $this->number("SELECT count(*) FROM row_kept WHERE of_table = 'site'");
        foreach ([1, 2] as $_) {
            $this->connection()->executeStatement('UPDATE site SET elevation_m = 1615 WHERE id = ?', [
                $site->id->toRfc4122(),
            ]);
        }
        self::assertSame($before + 1, $this->number("SELECT count(*) FROM row_kept WHERE of_table = 'site'"));
        self::assertNull($this->service(ChainVerifier::class)->firstBreak($site));
    }

    public function testADigestKeptElsewhereShowsWhatAWalkAloneCannot(): void
    {
        $site = $this->logIn('dell')->site;
        $tester = new CommandTester($this->service(VerifyCommand::class));
        $seals = explode(
            "\r\n",
            implode('', iterator_to_array($this->service(RecordExport::class)->seals($site), false)),
        );
        self::assertSame('day,link,digest', $seals[0]);
        [, $link, $digest] = explode(',', $seals[\count($seals) - 2]);
        self::assertSame(
            $this->service(SiteChain::class)->length($site),
            (int) $link,
            'the last day comes to the whole chain',
        );
        self::assertSame(0, $tester->execute(['--expect' => ["$link:$digest"]]));
        self::assertSame(
            2,
            $tester->execute(['--expect' => [substr("$link:$digest", 0, -1)]]),
            'a slip in copying is said, not taken for tampering',
        );
        // The last entry taken away with its link leaves a shorter chain that holds.
        $this->asOwner();
        $this->connection()->executeStatement('SET session_replication_role = replica');
        foreach (
            [
                'DELETE FROM site_key WHERE id = (SELECT row_id FROM chain_link ORDER BY position DESC LIMIT 1)',
                'DELETE FROM chain_link WHERE position = (SELECT max(position) FROM chain_link)',
            ] as $sql
        ) {
            self::assertSame(1, $this->connection()->executeStatement($sql), $sql);
        }
        $this->connection()->executeStatement('SET session_replication_role = DEFAULT');
        self::assertSame(0, $tester->execute([]));
        self::assertSame(1, $tester->execute(['--expect' => ["$link:$digest"]]));
        self::assertStringContainsString("No site has the digest $digest at link $link", $tester->getDisplay());
    }

    public function testTheDatabaseItselfRefusesToChangeALink(): void
    {
        $this->asOwner();
        $this->expectExceptionMessage('only ever added');
        $this->connection()->executeStatement("UPDATE chain_link SET hash = 'x'");
    }

    public function testAWriterOfASiteWaitsForTheOther(): void
    {
        $site = $this->logIn()->site;
        $other = \Doctrine\DBAL\DriverManager::getConnection($this->connection()->getParams());
        $other->beginTransaction();
        $other->executeStatement('SELECT 1 FROM site WHERE id = ? FOR NO KEY UPDATE', [$site->id->toRfc4122()]);
        $this->connection()->executeStatement("SET LOCAL lock_timeout = '200ms'");
        try {
            $this->service(SiteChain::class)->lock($site, Instant::ofEpoch(0));
            self::fail('did not wait');
        } catch (\Doctrine\DBAL\Exception\DriverException $waited) {
            self::assertStringContainsString('lock timeout', $waited->getMessage());
        } finally {
            $other->rollBack();
        }
    }
}
