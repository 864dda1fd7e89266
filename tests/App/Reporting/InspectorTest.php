<?php

declare(strict_types=1);

namespace Verjuicer\Tests\App\Reporting;

use PHPUnit\Framework\Attributes\DataProvider;
use Symfony\Component\DomCrawler\Crawler;
use Symfony\Component\Process\Process;
use Symfony\Component\Uid\Uuid;
use Verjuicer\App\Platform\Machine\MachineStates;
use Verjuicer\App\Platform\Now;
use Verjuicer\App\Platform\Wording\Language;
use Verjuicer\App\Reporting\Packet\Packet;
use Verjuicer\App\Reporting\Packet\PacketMaker;
use Verjuicer\App\Reporting\Packet\Packets;
use Verjuicer\App\Reporting\Packet\PacketScope;
use Verjuicer\App\Reporting\Sop\ProcedureLog;
use Verjuicer\Core\Food\ProcedureKind;
use Verjuicer\Core\Measure\Instant;
use Verjuicer\Core\Measure\LocalDate;
use Verjuicer\Core\Measure\Span;
use Verjuicer\Tests\App\KitchenTestCase;
use Verjuicer\Tests\Kitchen\TestKitchen;

/** What an inspector is handed: a packet, a link that expires; and what a manager learns from the records together. */
final class InspectorTest extends KitchenTestCase
{
    public function testAPacketSaysHowLongItWillTakeYet(): void
    {
        $asked = Instant::ofEpoch(1_000);
        $packet = static fn (int $done, ?int $total): Packet => new Packet(
            'id',
            $asked,
            new PacketScope('2026-01-01', '2026-01-02'),
            'A4',
            Language::English,
            $done,
            $total,
            null,
            null,
            null,
            'site',
            'MR',
        );
        self::assertNull($packet(0, null)->left($asked));
        self::assertNull($packet(0, 10)->left($asked->plus(Span::ofSeconds(5))));
        self::assertSame(60, $packet(4, 10)->left($asked->plus(Span::ofSeconds(40)))?->seconds);
        self::assertSame(0, $packet(10, 10)->left($asked->plus(Span::ofSeconds(40)))?->seconds);
    }

    /**
     * @param list<string> $within
     * @param list<string> $without
     */
    #[DataProvider('scopes')]
    public function testAPacketHoldsWhatWasChosenAndNothingElse(
        PacketScope $scope,
        string $paper,
        array $within,
        array $without,
    ): void {
        $text = $this->text($this->made($scope, $paper));
        foreach (
            [
                'Inspection packet',
                'Quarry Lane Smokehouse',
                'Results by rule',
                '3-501.14',
                'FDA Food Code 2022',
                'T2 QL-0119',
                '145 °F for 4 min',
                '3-401.11(A)',
                'hot-holding check at least every 2 h',
                ...$within,
            ] as $words
        ) {
            self::assertStringContainsString($words, $text);
        }
        foreach ($without as $words) {
            self::assertStringNotContainsString($words, $text);
        }
        self::assertMatchesRegularExpression('/\b1 ?\/ ?\d+\b/', $text, 'pages are numbered');
        self::assertMatchesRegularExpression('/Entry \d+: [0-9a-f]{10}/', $text);
    }

    /** @return iterable<string, array{PacketScope, string, list<string>, list<string>}> */
    public static function scopes(): iterable
    {
        [$from, $to] = ['2020-01-01', '2100-01-01'];
        yield 'a product' => [
            new PacketScope($from, $to, product: 'Pork loin'),
            'Letter',
            ['Pork loin', 'Never got there', 'Ridge Road Provisions', 'Alarms', 'Urgent: Tag 18 Pork loin'],
            ['Beef brisket', 'Turkey breast'],
        ];
        yield 'a lot' => [
            new PacketScope($from, $to, lot: 'HC-2211'),
            'A4',
            ['Goat leg', 'Orchard brine'],
            ['Pork loin'],
        ];
        yield 'nothing' => [
            new PacketScope($from, $to, batch: 'none'),
            'A4',
            ['No batches in this time'],
            ['Goat leg'],
        ];
    }

    public function testAPacketStandsAlone(): void
    {
        $manager = $this->logIn('dell');
        $now = $this->service(Now::class)->instant();
        $version = Uuid::v7();
        $this->service(ProcedureLog::class)->add($version, $manager, ProcedureKind::TimeControl, [
            'number' => 'P-1',
            'body' => "## Labels\n\nWrite the *discard time* on every pan.",
            'from' => $now->plus(Span::ofSeconds(-60)),
            'withdrawn' => false,
            'approved_by' => 'County Health',
            'approved_on' => LocalDate::ofIso('2026-05-04'),
            'approval_number' => 'TC-77',
            'reason' => 'the first version',
        ]);
        $this->service(ProcedureLog::class)->train(Uuid::v7(), $manager, $version->toRfc4122());
        $this->keep('7 clock hot', isSure: true);
        self::assertResponseRedirects();
        $id = $this->made(new PacketScope('2020-01-01', '2100-01-01'), 'Letter');
        $text = $this->text($id);
        foreach (
            [
                'Write the discard time on every pan.',
                'Approved by County Health, number TC-77',
                'Dell Farrow (Tue 24 Nov 2026)',
                '32.3 °F for 32 °F ±2 °F',
                'Words used here',
                'Between the cold-holding and the hot-holding limit',
                'Days with entries that are not signed',
                'Supplier Amount',
                'Decision',
                'Not given. Ask the kitchen.',
            ] as $words
        ) {
            self::assertStringContainsString($words, $text);
        }
        $pages = explode("\f", $this->pages($id));
        array_pop($pages);
        foreach ($pages as $number => $page) {
            self::assertStringContainsString('Practice kitchen', $page, 'page '.($number + 1));
        }
        preg_match_all('/Letters at the foot: (.*?)\./', $text, $legends);
        self::assertNotContains('', $legends[1]);
        $file = (string) tempnam(sys_get_temp_dir(), 'packet');
        file_put_contents($file, $this->pdf($id));
        $check = new Process(['qpdf', '--check', $file]);
        $check->run();
        unlink($file);
        self::assertSame(0, $check->getExitCode(), $check->getOutput().$check->getErrorOutput());
    }

    public function testAPacketSaysOnItsCoverWhetherItIsWhatWasWrittenDown(): void
    {
        $scope = new PacketScope('2020-01-01', '2100-01-01', product: 'Duck');
        $text = $this->text($this->made($scope, 'A4'));
        $links = $this->number('SELECT max(position) FROM chain_link');
        // The digest of the file is written down once it is made.
        self::assertStringContainsString($links - 1 .' entries match', $text);
        $id = $this->words(
            "SELECT e.id FROM event e JOIN batch b ON b.id = e.batch_id
             WHERE b.product_name = 'Duck' AND e.type = 'reading' ORDER BY e.seq LIMIT 1",
        );
        $tag = $this->number("SELECT b.tag FROM event e JOIN batch b ON b.id = e.batch_id WHERE e.id = '$id'");
        $this->asOwner();
        $this->connection()->executeStatement('SET session_replication_role = replica');
        $this->connection()->executeStatement(
            "UPDATE event SET members = jsonb_set(members, '{temp}', '{\"f\": 38}') WHERE id = ?",
            [$id],
        );
        $this->connection()->executeStatement('SET session_replication_role = DEFAULT');
        $this->logIn('ike');
        $text = $this->text($this->made($scope, 'A4'));
        foreach (['Some records do not match', 'was altered', "tag $tag,", $id] as $told) {
            self::assertStringContainsString($told, $text);
        }
        self::assertStringNotContainsString('chain entries match', $text);
    }

    public function testAPacketIsAskedForMadeInTheBackgroundAndTaken(): void
    {
        $this->logIn('wynn');
        self::assertSelectorNotExists('main form', $this->client->request('GET', '/packets')->text());
        $this->logIn('ike');
        $page = $this->client->request('GET', '/packets');
        $page = $this->client->submit(
            $page->selectButton('Make packet')->form(['from' => '2026-12-02', 'to' => '2026-12-01']),
        );
        self::assertSelectorExists('#problem-to');
        $page = $this->client->submit(
            $page->selectButton('Make packet')->form(
                ['from' => '2020-01-01', 'to' => '2026-12-01', 'lot' => 'NO-SUCH'],
            ),
        );
        self::assertStringContainsString(
            'No batch of these days has this batch code, lot or product',
            $page->filter('#problem-to')->text(),
            'a slip of the pen is no empty packet',
        );
        $id = $this->asked(new PacketScope('2020-01-01', '2100-01-01', product: 'Duck'), 'A4');
        $this->connection()->executeStatement('UPDATE packet SET finished_at = NULL, pdf = NULL WHERE id = ?', [$id]);
        $page = $this->client->request('GET', '/packets/'.$id);
        self::assertStringContainsString('In progress', $page->filter('main')->text());
        self::assertSelectorExists('meta[http-equiv=refresh]', 'it looks again by itself, without a script');
        $this->client->request('GET', "/packets/$id/packet.pdf");
        self::assertResponseStatusCodeSame(404);
        $this->make($id);
        self::assertStringContainsString(
            'Open the PDF',
            $this->client
                ->request('GET', '/packets/'.$id)
                ->filter('main')
                ->text(),
        );
        $this->client->request('GET', "/packets/$id/packet.pdf");
        self::assertStringStartsWith('%PDF-', (string) $this->client->getResponse()->getContent());
    }

    public function testALinkOpensThatPacketAloneUntilItExpires(): void
    {
        $id = $this->made(new PacketScope('2020-01-01', '2100-01-01', product: 'Duck'), 'A4');
        $this->logIn('mara');
        $page = $this->client->request('GET', '/packets/'.$id, server: ['HTTP_HOST' => 'elsewhere.example']);
        $page = $this->client->submit(
            $page->selectButton('Create link')->form(['days' => '3']),
            serverParameters: ['HTTP_HOST' => 'elsewhere.example'],
        );
        $address = trim($page->filter('p.bg-sand')->text());
        self::assertStringStartsWith(
            'http://127.0.0.1:8080/shared/',
            $address,
            'from the configured address, whatever host was asked for',
        );
        $link = (string) parse_url($address, \PHP_URL_PATH);
        self::assertMatchesRegularExpression('#^/shared/[0-9a-f]{48}$#', $link);
        self::assertSame(
            0,
            $this->number("SELECT count(*) FROM packet WHERE token_hash = '".substr($link, 8)."'"),
            'only its hash is kept',
        );
        $this->client->getCookieJar()->clear();
        $this->client->restart();
        self::assertStringContainsString('Duck', $this->client->request('GET', $link)->filter('main')->text());
        $this->client->request('GET', $link.'/packet.pdf');
        $pdf = (string) $this->client->getResponse()->getContent();
        self::assertStringStartsWith('%PDF-', $pdf);
        $this->client->request('GET', '/');
        self::assertResponseRedirects('http://localhost/login');
        $made = "SELECT md5(pdf) FROM packet WHERE id = '$id'";
        $before = $this->words($made);
        $this->service(Packets::class)->finish(
            $this->service(Packets::class)->find($id) ?? self::fail(),
            Instant::ofEpoch(2_000_000_000),
            'another',
        );
        self::assertSame($before, $this->words($made), 'what was handed on is never made anew');
        $this->client->request('GET', '/shared/'.str_repeat('0', 48));
        self::assertResponseStatusCodeSame(404);
        $this->logIn('mara');
        $page = $this->client->request('GET', '/packets/'.$id);
        self::assertStringContainsString(
            hash('sha256', $pdf),
            $page->filter('main')->text(),
        );
        self::assertSame(2, substr_count($page->filter('#openings + ul')->text(), 'by the link'), 'page and file');
        $withdrawn = $page->selectButton('Withdraw link')->form();
        $this->connection()->executeStatement(
            "UPDATE packet SET expires_at = '".TestKitchen::MOMENT."'::timestamptz - interval '1 second'",
        );
        $this->client->request('GET', $link);
        self::assertResponseStatusCodeSame(404, 'expired');
        $this->connection()->executeStatement('UPDATE packet SET expires_at = ?', ['2100-01-01']);
        $this->client->request('GET', $link);
        self::assertResponseIsSuccessful();
        $this->logIn('mara');
        $this->client->submit($withdrawn);
        $this->client->request('GET', $link);
        self::assertResponseStatusCodeSame(404, 'withdrawn');
    }

    public function testTrendsLeadToTheRecordsBehindThem(): void
    {
        $this->logIn('wynn');
        $page = $this->client->request('GET', '/trends');
        $text = $page->filter('main')->text();
        self::assertStringContainsString('First cooling limit', $text);
        self::assertMatchesRegularExpression('/\d of \d batches in hot holding had a longer gap/', $text);
        self::assertStringContainsString('off by +4.8 °F', $page->filter('a:contains("T2")')->text());
        foreach (
            ['by_rule' => 'Cooking temperature', 'by_product' => 'Pork loin', 'took/cook' => 'Cook'] as $group => $bar
        ) {
            $link = $page
                ->filter("a[href*='/trends/$group']:contains('$bar')")
                ->first()
                ->link();
            self::assertStringContainsString('Pork loin', $this->client->click($link)->filter('main')->text(), $group);
        }
        self::assertStringContainsString(
            'Beef brisket',
            $this->client
                ->click($page->filter("a[href*='/trends/by_unit']:contains('switched-off oven')")->link())
                ->filter('main')
                ->text(),
        );
        self::assertStringContainsString(
            'Beef cheek',
            $this->client
                ->click($page->filter("a[href*='/trends/gaps']")->link())
                ->filter('main')
                ->text(),
        );
        $zone =
            'SELECT count(*) FROM ('
."SELECT DISTINCT batch_id, extract(hour FROM at AT TIME ZONE 'America/Denver') "
.'FROM deviation WHERE at IS NOT NULL) one';
        self::assertSame(
            $this->number($zone),
            array_sum(
                $page
                    ->filter('a[href*="/trends/by_hour"] span:last-child')
                    ->each(static fn (Crawler $one): int => (int) $one->text()),
            ),
            'every deviation stands at its hour',
        );
        $bars = $page
            ->filter('a[href*="/trends/by_rule"]')
            ->each(static fn (Crawler $one): array => [$one->filter('span:last-child')->text(), $one->link()]);
        foreach ($bars as [$count, $link]) {
            self::assertCount(
                (int) $count,
                $this->client->click($link)->filter('main li'),
                'a bar and the records behind it agree',
            );
        }
        $this->client->request('GET', '/trends/by_rule', ['name' => "x' OR 1=1 --"]);
        self::assertResponseIsSuccessful();
    }

    public function testADaySheetSaysHowTheChainWasWalkedLast(): void
    {
        $this->logIn('dell');
        $day = fn (): string => $this->client->request('GET', '/days/2026-11-24')->filter('main')->text();
        self::assertStringNotContainsString('Last integrity check', $day());
        $this->asOwner();
        $this->service(MachineStates::class)->note('verify', false, 'a chain breaks: see verjuicer:verify');
        $this->logIn('dell');
        self::assertStringContainsString('a chain breaks: see verjuicer:verify', $day());
    }

    public function testWhatMustBeKeptAndUntilWhen(): void
    {
        $this->logIn('wynn');
        $text = $this->client->request('GET', '/keeping')->filter('main')->text();
        self::assertStringContainsString('at least 24 months', $text);
        self::assertStringContainsString('No basis recorded yet', $text);
        $this->client->request('GET', '/site');
        self::assertResponseStatusCodeSame(403);
        $this->logIn('dell');
        $form = fn () => $this->client->request('GET', '/site')->selectButton('Save')->form();
        $page = $this->client->submit($form(), ['keep_months' => '0', 'keep_basis' => 'County rule 12']);
        self::assertSelectorExists('#problem-keep_months');
        self::assertSame(
            'County rule 12',
            $page->filter('[name=keep_basis]')->attr('value'),
            'nothing that was typed is lost',
        );
        $this->client->submit($form(), [
            'keep_months' => '1',
            'keep_basis' => 'County rule 12',
            'reason' => 'asked for',
        ]);
        $this->connection()->executeStatement(
            "UPDATE batch_report SET ended_at = '".
                TestKitchen::MOMENT.
                "'::timestamptz - interval '40 days' WHERE batch_id = (SELECT id FROM batch WHERE tag = 3)",
        );
        $page = $this->client->request('GET', '/keeping');
        self::assertStringContainsString('County rule 12', $page->filter('main')->text());
        $cells = $page
            ->filter('tbody tr')
            ->first()
            ->filter('td')
            ->each(static fn (Crawler $cell): string => $cell->text());
        self::assertSame((string) $this->number('SELECT count(*) FROM batch'), $cells[0]);
        $today = (new \DateTimeImmutable(TestKitchen::MOMENT))->setTimezone(new \DateTimeZone('America/Denver'));
        $begun = "to_char(min(begun_at) AT TIME ZONE 'America/Denver', 'FMDD Mon YYYY')";
        $begun = $this->words("SELECT $begun FROM batch");
        self::assertStringContainsString($begun, $cells[1], 'the first is the first that was begun');
        self::assertStringContainsString($today->format('j M Y'), $cells[2], 'an open one counts as of today');
        self::assertSame('1', $cells[4], 'one is past its time, and is there all the same');
        self::assertStringContainsString(
            'Entry '.$this->number('SELECT max(position) FROM chain_link').':',
            $page->filter('main')->text(),
        );
    }

    private function made(PacketScope $scope, string $paper): string
    {
        $id = $this->asked($scope, $paper);
        $this->make($id);

        return $id;
    }

    private function asked(PacketScope $scope, string $paper): string
    {
        $id = Uuid::v7();
        $this->service(Packets::class)->ask(
            $id,
            $this->logIn('ike'),
            Instant::ofEpoch($this->number('SELECT extract(epoch FROM max(recorded_at))::int FROM event'))->plus(
                Span::ofSeconds(5),
            ),
            $scope,
            $paper,
        );

        return $id->toRfc4122();
    }

    private function make(string $id): void
    {
        $packet = $this->service(Packets::class)->find($id);
        self::assertNotNull($packet);
        $this->service(PacketMaker::class)->make($packet);
    }

    private function text(string $id): string
    {
        return (string) preg_replace('/\s+/', ' ', $this->pages($id));
    }

    /** The text of a packet, each page ending in a form feed. */
    private function pages(string $id): string
    {
        return (new Process(['pdftotext', '-layout', '-', '-'], null, null, $this->pdf($id)))
            ->mustRun()
            ->getOutput();
    }

    private function pdf(string $id): string
    {
        $packet = $this->service(Packets::class)->find($id);
        self::assertNotNull($packet);

        return $this->service(Packets::class)->pdf($packet);
    }
}
