<?php

declare(strict_types=1);

namespace Verjuicer\Tests\App\Reporting;

use Doctrine\DBAL\Connection;
use Doctrine\DBAL\DriverManager;
use PHPUnit\Framework\Attributes\DataProvider;
use PHPUnit\Framework\TestCase;
use Symfony\Component\Filesystem\Filesystem;
use Symfony\Component\Process\Process;
use Symfony\Component\Uid\Uuid;
use Verjuicer\Tests\Kitchen\TestKitchen;

/**
 * The demo is backed up, destroyed and restored; and exported and imported into an empty site: nothing is lost, altered
 * or judged otherwise.
 */
final class MovingHouseTest extends TestCase
{
    private const ROOT = __DIR__.'/../../..';

    private string $file = '';
    private string $keys = '';

    /** @var list<string> */
    private array $databases = [];

    protected function setUp(): void
    {
        $this->file = sys_get_temp_dir().'/verjuicer-'.bin2hex(random_bytes(6)).'.backup';
        $this->keys = TestKitchen::copyOfKeys();
    }

    protected function tearDown(): void
    {
        @unlink($this->file);
        (new Filesystem())->remove($this->keys);
        foreach ($this->databases as $name) {
            self::admin("DROP DATABASE IF EXISTS $name");
        }
    }

    public function testABackupIsRestoredWholeAndOnlyIntoAnEmptyDatabase(): void
    {
        [$status, $said] = $this->console(self::url(), 'verjuicer:backup', $this->file);
        self::assertSame(0, $status, $said);
        self::assertMatchesRegularExpression('/SHA-256 [0-9a-f]{64}/', $said);
        self::assertSame(
            2,
            $this->console(self::url(), 'verjuicer:backup', $this->file)[0],
            'a backup never overwrites another',
        );
        self::assertSame(
            2,
            $this->console(self::url(), 'verjuicer:restore', $this->file)[0],
            'nothing is restored over what is there',
        );

        $restored = $this->database();
        [$status, $said] = $this->console($restored, 'verjuicer:restore', $this->file);
        self::assertSame(0, $status, $said);
        self::assertStringContainsString('all hold', $said);
        $before = $this->console(self::url(), 'verjuicer:export', 'records', '--login=mara')[1];
        self::assertSame($before, $this->console($restored, 'verjuicer:export', 'records', '--login=mara')[1]);
        self::assertStringContainsString('all hold', $this->console($restored, 'verjuicer:verify')[1]);

        // A backup that was tampered with is restored, and found out.
        $altered = $this->database();
        $this->console($altered, 'verjuicer:restore', $this->file);
        $connection = DriverManager::getConnection(self::parameters($altered));
        $connection->executeStatement(
            "SET session_replication_role = replica; UPDATE event SET initials = 'XX' WHERE type = 'cook'",
        );
        $connection->close();
        [$status, $said] = $this->console($altered, 'verjuicer:verify');
        self::assertSame(1, $status);
        self::assertStringContainsString('was altered', $said);

        file_put_contents($this->file, substr((string) file_get_contents($this->file), 0, 4000));
        [$status] = $this->console($this->database(), 'verjuicer:restore', $this->file);
        self::assertSame(1, $status, 'half a backup is none');
    }

    public function testTheTableOfEventsAloneMovesABatchIntoAnotherKitchen(): void
    {
        file_put_contents($this->file, $this->console(self::url(), 'verjuicer:export', 'events', '--login=mara')[1]);
        [$empty] = $this->emptySite();
        [$status, $said] = $this->console($empty, 'verjuicer:import', $this->file, '--login=new', '--preview');
        self::assertSame(0, $status, $said);
        [$status, $said] = $this->console($empty, 'verjuicer:import', $this->file, '--login=new');
        self::assertSame(0, $status, $said);
        self::assertMatchesRegularExpression('/^\d+ new, 0 known already/', $said);
        $batches = function (string $url, string $login): array {
            $records = $this->console($url, 'verjuicer:export', 'records', "--login=$login")[1];

            $batches = array_map(static function (string $line): array {
                $record = json_decode($line, true, flags: \JSON_THROW_ON_ERROR);
                $batch = \is_array($record) && \is_array($record['batch'] ?? null) ? $record['batch'] : [];

                return [$batch['code'], $batch['product'], \count((array) $batch['events'])];
            }, explode("\n", trim($records)));
            sort($batches);

            return $batches;
        };
        self::assertEquals($batches(self::url(), 'mara'), $batches($empty, 'new'), 'every batch, with all its events');
        self::assertStringContainsString(
            '0 new',
            $this->console($empty, 'verjuicer:import', $this->file, '--login=new')[1],
            'again, all is known',
        );
    }

    public function testAnExportIsImportedIntoAnEmptySiteAndJudgedTheSame(): void
    {
        $records = $this->console(self::url(), 'verjuicer:export', 'records', '--login=mara')[1];
        file_put_contents($this->file, $records);
        [$empty, $connection] = $this->emptySite();
        $kitchen = $this->console(self::url(), 'verjuicer:export', 'site', '--login=mara')[1];
        file_put_contents($this->file.'.json', $kitchen);
        [$status, $said] = $this->console($empty, 'verjuicer:import', $this->file.'.json', '--login=new');
        self::assertSame(0, $status, $said);
        self::assertMatchesRegularExpression('/^\d+ new, 0 known already/', $said);
        self::assertMatchesRegularExpression(
            '/^0 new, \d+ known already/',
            $this->console($empty, 'verjuicer:import', $this->file.'.json', '--login=new')[1],
        );
        unlink($this->file.'.json');

        [$status, $said] = $this->console($empty, 'verjuicer:import', $this->file, '--login=new', '--preview');
        self::assertSame(
            [0, 'preview'],
            [$status, $connection->fetchOne('SELECT count(*) FROM batch') === 0 ? 'preview' : 'kept'],
            $said,
        );
        [$status, $said] = $this->console($empty, 'verjuicer:import', $this->file, '--login=new');
        self::assertSame(0, $status, $said);
        self::assertMatchesRegularExpression('/^(\d+) new, 0 known already/', $said);
        self::assertStringContainsString(
            '0 new',
            $this->console($empty, 'verjuicer:import', $this->file, '--login=new')[1],
            'again, all is known',
        );

        $moment = '--as-of=2126-01-01T00:00:00Z';
        $verdicts = static function (string $ndjson): array {
            $verdicts = [];
            foreach (explode("\n", trim($ndjson)) as $line) {
                $answer = json_decode($line, true);
                self::assertIsArray($answer);
                self::assertIsString($answer['batch']);
                $verdicts[$answer['batch']] = [
                    $answer['verdict'],
                    $answer['rules_judged'],
                    $answer['danger_zone'],
                    \count($answer['suspect_readings']),
                    array_column($answer['findings'], 'message'),
                ];
            }
            ksort($verdicts);

            return $verdicts;
        };
        $again = $this->console($empty, 'verjuicer:export', 'records', '--login=new')[1];
        self::assertSame($verdicts($this->assess($records, $moment)), $verdicts($this->assess($again, $moment)));
        self::assertStringContainsString('all hold', $this->console($empty, 'verjuicer:verify')[1]);
        // Plans of which dishes became real batches come once these are here.
        file_put_contents($this->file.'.json', $kitchen);
        [$status, $said] = $this->console($empty, 'verjuicer:import', $this->file.'.json', '--login=new');
        self::assertSame(0, $status, $said);
        self::assertDoesNotMatchRegularExpression('/^0 new/', $said);
        unlink($this->file.'.json');
        self::assertSame(
            self::ofKitchen($kitchen),
            self::ofKitchen($this->console($empty, 'verjuicer:export', 'site', '--login=new')[1]),
            'settings, products, recipes, pits, thermometers, lots, what is in writing and plans, as they were',
        );

        $portions = <<<'SQL'
            SELECT string_agg(concat_ws(' ', b.code, p.code, b.portion_grams, b.container, b.depth_mm,
              (SELECT count(*) FROM event e WHERE e.batch_id = b.id)), ', ' ORDER BY b.code)
            FROM batch b JOIN batch p ON p.id = b.parent_id
            SQL;
        $here = DriverManager::getConnection(self::parameters(self::url()));
        self::assertSame(
            $here->fetchOne($portions),
            $connection->fetchOne($portions),
            'portions keep what they were split off, their weight, container and depth, and their own events',
        );
        $here->close();

        $lots = <<<'SQL'
            SELECT string_agg(concat_ws(' ', l.number, s.name, b.code), ', ' ORDER BY l.number, b.code)
            FROM batch_lot t JOIN lot l ON l.id = t.lot_id JOIN supplier s ON s.id = l.supplier_id
            JOIN batch b ON b.id = t.batch_id
            SQL;
        $here = DriverManager::getConnection(self::parameters(self::url()));
        self::assertSame($here->fetchOne($lots), $connection->fetchOne($lots), 'what was made of a lot is found');
        $here->close();
        self::assertSame(0, $connection->fetchOne(
            'SELECT count(*) FROM (SELECT l.pieces - sum(t.pieces) AS rest FROM lot l JOIN batch_lot t
             ON t.lot_id = l.id GROUP BY l.id, l.pieces) o WHERE o.rest < 0',
        ));

        // Known by the ids of its events: another batch of that code is another, a changed one is told.
        $first = explode("\n", $records)[0];
        $ids = '/"id":"[0-9a-f-]{36}"/';
        file_put_contents($this->file, (string) preg_replace_callback(
            $ids,
            static fn (): string => '"id":"'.Uuid::v7()->toRfc4122().'"',
            preg_replace('/"replaces":"[^"]*",?/', '', $first) ?? '',
        ));
        [, $said] = $this->console($empty, 'verjuicer:import', $this->file, '--login=new');
        self::assertStringContainsString('1 new, 0 known', $said, 'of another kitchen, with the same tag and day');
        // A portion of another kitchen's batch of that code goes to that one, not to ours.
        $family = array_values(array_filter(
            explode("\n", $records),
            static fn (string $line): bool => str_contains($line, '"code":"2026-1124-26'),
        ));
        self::assertCount(3, $family);
        $other = [];
        file_put_contents($this->file, (string) preg_replace_callback(
            '/"(id|replaces)":"([0-9a-f-]{36})"/',
            static function (array $part) use (&$other): string {
                $other[$part[2]] ??= Uuid::v7()->toRfc4122();

                return "\"$part[1]\":\"{$other[$part[2]]}\"";
            },
            implode("\n", $family),
        ));
        [, $said] = $this->console($empty, 'verjuicer:import', $this->file, '--login=new');
        self::assertStringContainsString('3 new, 0 known', $said);
        self::assertSame(
            ['2026-1124-26' => 2, '2026-1124-26/2' => 2],
            $connection->fetchAllKeyValue(
                "SELECT p.code, count(*) FROM batch b JOIN batch p ON p.id = b.parent_id
                 WHERE p.code LIKE '2026-1124-26%' GROUP BY p.code ORDER BY p.code",
            ),
        );
        file_put_contents($this->file, (string) preg_replace('/"by":"\w+"/', '"by":"ZZ"', $first, 1));
        [, $said] = $this->console($empty, 'verjuicer:import', $this->file, '--login=new');
        self::assertStringContainsString('is here with 1 other events', $said);
        self::assertStringContainsString('0 new, 1 known', $said);

        // One bad line, and nothing of the file is taken.
        $before = $connection->fetchOne('SELECT count(*) FROM event');
        file_put_contents(
            $this->file,
            str_replace('"code":"', '"code":"X-', explode("\n", $records)[0])
                ."\n{\"format\":\"verjuicer-record/1\"}\n",
        );
        [$status, $said] = $this->console($empty, 'verjuicer:import', $this->file, '--login=new');
        self::assertSame(1, $status);
        self::assertStringContainsString('line 2: /site "site" is missing', $said);
        self::assertSame($before, $connection->fetchOne('SELECT count(*) FROM event'));
        $connection->close();
    }

    /** What an earlier version wrote is there, whole, and judged as it was then. */
    /** @return iterable<string, array{string}> a database of each released version, without its ending */
    public static function releases(): iterable
    {
        foreach ((array) glob(self::ROOT.'/tests/Upgrade/*.dump') as $file) {
            \assert(\is_string($file));
            yield basename($file, '.dump') => [substr($file, 0, -\strlen('.dump'))];
        }
    }

    public function testTheVersionOfThisIsAmongTheReleasesOnceItIsReleased(): void
    {
        $versions = array_map(static fn (string $one): string => strtr($one, '-', '.'), array_keys([
            ...self::releases(),
        ]));
        $version = trim((string) file_get_contents(self::ROOT.'/VERSION'));
        self::assertContains($version, $versions, 'a release keeps a database of its own: tests/Upgrade');
    }

    #[DataProvider('releases')]
    public function testADatabaseOfEachReleaseIsBroughtUpToDate(string $folder): void
    {
        /** @var array{moment: string, links: int, batches: array<string, mixed>} $then */
        $then = json_decode((string) file_get_contents("$folder.json"), true, flags: \JSON_THROW_ON_ERROR);
        $database = $this->database();
        (new Filesystem())->remove($this->keys); // of a kitchen that is not in it
        [$status, $said] = $this->console($database, 'verjuicer:restore', "$folder.dump");
        self::assertSame(0, $status, $said);
        self::assertStringContainsString('all hold', $said);
        [$status, $said] = $this->console($database, 'verjuicer:projections:rebuild', '--outdated');
        self::assertSame(0, $status, $said);
        [$status, $said] = $this->console($database, 'verjuicer:verify');
        self::assertSame(0, $status, $said);
        self::assertSame(1, preg_match('/(\d+) links, all hold/', $said, $links));
        self::assertGreaterThan($then['links'], (int) ($links[1] ?? 0), 'and what was not in the chain then');
        $records = $this->console($database, 'verjuicer:export', 'records', '--login=mara')[1];
        $now = [];
        foreach (explode("\n", trim($this->assess($records, '--as-of='.$then['moment']))) as $line) {
            /** @var array{batch: string, verdict: string, rules_judged: array<string, string>} $one */
            $one = json_decode($line, true, flags: \JSON_THROW_ON_ERROR);
            ksort($one['rules_judged']);
            $now[$one['batch']] = ['verdict' => $one['verdict'], 'rules_judged' => $one['rules_judged']];
        }
        ksort($now);
        self::assertSame($then['batches'], $now);
        [$status, $said] = $this->console($database, 'verjuicer:demo');
        self::assertSame(0, $status, 'bin/start goes on with the demo of that version: '.$said);
        self::assertStringContainsString('The demo is there already.', $said);
        self::assertSame(0, $this->console($database, 'verjuicer:verify')[0]);
        $connection = DriverManager::getConnection(self::parameters($database));
        self::assertTrue($connection->fetchOne('SELECT is_practice FROM site'));
        self::assertSame(
            ['dell', 'ike', 'mara', 'wynn'],
            $connection->fetchFirstColumn(
                "SELECT login FROM person WHERE password LIKE '\$argon2id\$%' ORDER BY login",
            ),
        );
        $connection->close();
    }

    /** By the application's role, behind the wall between sites. */
    public function testAnImportTellsHowFarItIs(): void
    {
        [$status, $said] = $this->console(self::url(), 'verjuicer:backup', $this->file);
        self::assertSame(0, $status, $said);
        $database = $this->database();
        $this->console($database, 'verjuicer:restore', $this->file);
        $connection = DriverManager::getConnection(self::parameters($database));
        $connection->executeStatement(
            "INSERT INTO import (id, site_id, account_id, at, asked_at, what, mapping, text)
             SELECT gen_random_uuid(), site_id, id, now(), now(), 'records', '{}', ''
             FROM account WHERE initials = 'DF'",
        );
        $process = new Process(
            [\PHP_BINARY, 'tests/Kitchen/tell-progress.php'],
            self::ROOT,
            ['APP_ENV' => 'test', 'DATABASE_URL' => str_replace('//verjuicer@', '//verjuicer_app@', $database)],
        );
        $process->mustRun();
        self::assertSame('3 of 10', $connection->fetchOne("SELECT done || ' of ' || total FROM import"));
        $connection->close();
    }

    /** @return array<mixed> what a kitchen has, without ids, and who wrote it down when: that is of each site's own */
    private static function ofKitchen(string $json): array
    {
        $own = ['id', 'by', 'recorded_at', 'imported', 'trained', 'reason', 'version'];
        $strip = static function (mixed $value) use (&$strip, $own): mixed {
            if (!\is_array($value)) {
                return $value;
            }
            $kept = array_is_list($value) ? $value : array_diff_key($value, array_flip($own));

            return array_map($strip, $kept);
        };
        $kitchen = $strip(json_decode($json, true, flags: \JSON_THROW_ON_ERROR));
        self::assertIsArray($kitchen);
        self::assertIsArray($kitchen['lots']);
        usort($kitchen['lots'], static fn (mixed $one, mixed $other): int => $one <=> $other);

        return $kitchen;
    }

    private function assess(string $ndjson, string $moment): string
    {
        $process = new Process(
            [\PHP_BINARY, 'bin/console', 'verjuicer:assess', '-', '--ndjson', $moment],
            self::ROOT,
            ['APP_DEBUG' => '0'],
            $ndjson,
            120,
        );
        $process->mustRun();

        return $process->getOutput();
    }

    /** @return array{string, Connection} the address of a database with a site that has nothing yet */
    private function emptySite(): array
    {
        $empty = $this->database();
        [$status, $said] = $this->console($empty, 'doctrine:migrations:migrate', '--no-interaction');
        self::assertSame(0, $status, $said);
        $connection = DriverManager::getConnection(self::parameters($empty));
        $connection->executeStatement(
            <<<'SQL'
            WITH o AS (
                INSERT INTO organisation (id, name)
                VALUES ('01900000-0000-7000-8000-000000000003', 'Quarry Lane') RETURNING id
            ), s AS (
                INSERT INTO site (id, name, timezone, unit, elevation_m, rule_set, organisation_id)
                SELECT '01900000-0000-7000-8000-000000000001', 'Quarry Lane Smokehouse', 'America/Denver', 'F', 1610,
                  'us-food-code-2022', id FROM o RETURNING id
            ), p AS (
                INSERT INTO person (id, login, password)
                VALUES ('01900000-0000-7000-8000-000000000004', 'new', 'x') RETURNING id
            )
            INSERT INTO account (id, site_id, person_id, name, initials, role)
            SELECT '01900000-0000-7000-8000-000000000002', s.id, p.id, 'New', 'NN', 'manager' FROM s, p
            SQL,
        );

        return [$empty, $connection];
    }

    private function database(): string
    {
        $name = 'moved_'.bin2hex(random_bytes(4));
        self::admin("CREATE DATABASE $name");
        $this->databases[] = $name;

        return (string) preg_replace('#/\w+\?#', "/$name?", self::url());
    }

    /** @return array{int, string} */
    private function console(string $database, string ...$command): array
    {
        $process = new Process(
            [\PHP_BINARY, 'bin/console', ...$command],
            self::ROOT,
            [
                'APP_ENV' => 'test',
                'APP_DEBUG' => '0',
                'DATABASE_URL' => $database,
                'VERJUICER_KEYS' => $this->keys,
            ],
            null,
            120,
        );
        $status = $process->run();

        return [$status, $process->getOutput().$process->getErrorOutput()];
    }

    private static function admin(string $sql): void
    {
        $connection = DriverManager::getConnection(['dbname' => 'postgres'] + self::parameters(self::url()));
        $connection->executeStatement($sql);
        $connection->close();
    }

    /** @return array{driver: 'pdo_pgsql', host: string, port: int, user: string, dbname: string} */
    private static function parameters(string $url): array
    {
        $part = parse_url($url);
        self::assertIsArray($part);

        return [
            'driver' => 'pdo_pgsql',
            'host' => $part['host'] ?? '',
            'port' => $part['port'] ?? 5432,
            'user' => $part['user'] ?? '',
            'dbname' => ltrim($part['path'] ?? '', '/'),
        ];
    }

    private static function url(): string
    {
        $url = $_ENV['DATABASE_URL'] ?? getenv('DATABASE_URL');
        self::assertIsString($url);

        return $url;
    }
}
