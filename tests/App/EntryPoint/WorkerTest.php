<?php

declare(strict_types=1);

namespace Verjuicer\Tests\App\EntryPoint;

use Symfony\Bundle\FrameworkBundle\Console\Application;
use Symfony\Component\Console\Tester\CommandTester;
use Symfony\Component\DomCrawler\Crawler;
use Symfony\Component\HttpKernel\KernelInterface;
use Symfony\Component\Messenger\MessageBusInterface;
use Symfony\Component\Uid\Uuid;
use Verjuicer\App\Projection\CatchUp;
use Verjuicer\App\Reporting\Packet\MakePacket;
use Verjuicer\App\Reporting\Packet\Packets;
use Verjuicer\App\Reporting\Packet\PacketScope;
use Verjuicer\Core\Measure\Instant;
use Verjuicer\Tests\App\KitchenTestCase;
use Verjuicer\Tests\Kitchen\TestKitchen;

/**
 * What takes long waits in the database for the worker: made in turn, tried once more where it fails, and then there to
 * be seen.
 */
final class WorkerTest extends KitchenTestCase
{
    protected function setUp(): void
    {
        $_ENV['MESSENGER_DSN'] = $_SERVER['MESSENGER_DSN'] = 'doctrine://default';
        parent::setUp();
    }

    protected function tearDown(): void
    {
        unset($_ENV['MESSENGER_DSN'], $_SERVER['MESSENGER_DSN']);
        parent::tearDown();
    }

    public function testAPacketWaitsUntilTheWorkerMakesIt(): void
    {
        $id = $this->ask(new PacketScope('2020-01-01', '2100-01-01', product: 'Duck'));
        self::assertStringContainsString('In progress', $this->page($id));
        self::assertSame(1, $this->waiting());
        $this->work();
        self::assertStringContainsString('Open the PDF', $this->page($id));
        self::assertSame(0, $this->waiting());
        $made = $this->words("SELECT md5(pdf) FROM packet WHERE id = '$id'");
        $this->service(MessageBusInterface::class)->dispatch(new MakePacket($id));
        $this->work();
        self::assertSame(
            $made,
            $this->words("SELECT md5(pdf) FROM packet WHERE id = '$id'"),
            'once made it is never made anew',
        );
    }

    public function testWhatFailsIsTriedOnceMoreAndThenSeen(): void
    {
        $id = $this->ask(new PacketScope('2020-01-01', '2100-01-01', product: 'Duck'));
        // Something that no packet can be: its scope is lost.
        $this->connection()->executeStatement("UPDATE packet SET scope = '{}' WHERE id = ?", [$id]);
        $this->work();
        self::assertSame(1, $this->waiting(), 'it waits to be tried again');
        self::assertStringContainsString('could not be made', $this->page($id), 'whoever waits for it is told');
        $this->connection()->executeStatement("UPDATE messenger_messages SET available_at = '2000-01-01'");
        $this->work();
        self::assertSame(0, $this->waiting(), 'and not a third time');
        self::assertSame(1, $this->waiting('failed'), 'it is kept for whoever looks after the machine');
        $kernel = self::$kernel;
        self::assertInstanceOf(KernelInterface::class, $kernel);
        $show = new CommandTester((new Application($kernel))->find('messenger:failed:show'));
        $show->execute([]);
        self::assertStringContainsString('MakePacket', $show->getDisplay());
    }

    /** Whoever writes into the queue cannot have the worker do, or unserialize, what they like. */
    public function testAMessageNobodySignedIsNotWorkedOn(): void
    {
        $id = $this->ask(new PacketScope('2020-01-01', '2100-01-01', product: 'Duck'));
        $this->connection()->executeStatement(
            "UPDATE messenger_messages SET headers = (headers::jsonb - 'Body-Sign')::text",
        );
        try {
            $this->work();
        } catch (\Throwable) {
            // It may say so.
        }
        self::assertStringContainsString('In progress', $this->page($id));
    }

    public function testAFileIsTakenInByTheWorkerAndWhatBecameOfItIsSaid(): void
    {
        $this->logIn('dell');
        $readings = $this->number("SELECT count(*) FROM event WHERE type = 'reading'");
        $page = $this->client->request('GET', '/exchange');
        $form = $page->selectButton('Preview import')->form();
        $text = "time,temp\n2026-11-24T12:00:00Z,160.5\n2026-11-24T12:10:00Z,161\n";
        $page = $this->client->request(
            'POST',
            '/exchange',
            ['what' => 'logger', 'tag' => '7', 'text' => $text] + $form->getValues(),
        );
        $this->client->submit($page->selectButton('Import')->form());
        self::assertStringContainsString('importing', $this->client->followRedirect()->filter('main')->text());
        self::assertSame($readings, $this->number("SELECT count(*) FROM event WHERE type = 'reading'"));
        $this->work();
        self::assertStringContainsString(
            '2 imported, 0 already existed',
            $this->client->request('GET', '/exchange')->filter('main')->text(),
        );
        self::assertSame($readings + 2, $this->number("SELECT count(*) FROM event WHERE type = 'reading'"));
        self::assertSame(
            1,
            $this->number('SELECT count(*) FROM import WHERE text IS NULL'),
            'what is in the records is not kept twice',
        );
    }

    /** Whoever works on a file says so while they do: where that ends, the next worker goes on within a minute. */
    public function testAFileWhoseWorkerDiedIsTakenByTheNext(): void
    {
        $this->logIn('dell');
        $form = $this->client->request('GET', '/exchange')->selectButton('Preview import')->form();
        $text = "time,temp\n2026-11-24T12:00:00Z,160.5\n";
        $typed = ['what' => 'logger', 'tag' => '7', 'text' => $text] + $form->getValues();
        $page = $this->client->request('POST', '/exchange', $typed);
        $this->client->submit($page->selectButton('Import')->form());
        $says = fn (): string => $this->client->request('GET', '/exchange')->filter('main')->text();
        $taken = fn (int $seconds): int => (int) $this->connection()->executeStatement(
            "UPDATE messenger_messages SET delivered_at = ?::timestamp - interval '$seconds seconds'",
            [gmdate('Y-m-d H:i:s')],
        );
        self::assertSame(1, $taken(40), 'No one else is alerted after this');
        $this->work();
        self::assertStringContainsString('importing', $says());
        $taken(61);
        self::mockTime('+61 seconds');
        $this->logIn('dell');
        self::assertStringContainsString('entries are imported. The next worker resumes by itself', $says());
        self::assertStringNotContainsString('left.', $says());
        $this->work();
        self::assertStringContainsString('1 imported', $says());
        foreach (['deploy/serve', 'deploy/systemd/verjuicer-worker.service'] as $file) {
            $runs = (string) file_get_contents(\dirname(__DIR__, 3).'/'.$file);
            self::assertStringContainsString('messenger:consume work --keepalive=20', $runs);
        }
    }

    public function testWhatManyChangesLeaveBehindIsWorkedOff(): void
    {
        $site = $this->logIn()->site->id->toRfc4122();
        $this->connection()->executeStatement(
            'UPDATE projection_state SET head = head + 1 WHERE batch_id NOT IN (SELECT batch_id FROM open_tag)',
        );
        $left = 'SELECT count(*) FROM projection_state WHERE made < head';
        self::assertGreaterThan(0, $this->number($left));
        $this->service(MessageBusInterface::class)->dispatch(new CatchUp($site));
        $this->work();
        self::assertSame(0, $this->number($left));
    }

    private function ask(PacketScope $scope): string
    {
        $id = Uuid::v7();
        $this->service(Packets::class)->ask(
            $id,
            $this->logIn('ike'),
            Instant::parse(TestKitchen::MOMENT),
            $scope,
            'A4',
        );

        return $id->toRfc4122();
    }

    private function page(string $id): string
    {
        return $this->client
            ->request('GET', '/packets/'.$id)
            ->filter('main')
            ->each(static fn (Crawler $main): string => $main->text())[0] ?? '';
    }

    private function waiting(string $queue = 'work'): int
    {
        return $this->number("SELECT count(*) FROM messenger_messages WHERE queue_name = '$queue'");
    }

    private function work(): void
    {
        $kernel = self::$kernel;
        self::assertInstanceOf(KernelInterface::class, $kernel);
        $worker = new CommandTester((new Application($kernel))->find('messenger:consume'));
        $worker->execute(['receivers' => ['work'], '--limit' => 1, '--time-limit' => 30]);
    }
}
