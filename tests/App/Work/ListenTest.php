<?php

declare(strict_types=1);

namespace Verjuicer\Tests\App\Work;

use Symfony\Component\Console\Tester\CommandTester;
use Symfony\Component\Process\ExecutableFinder;
use Symfony\Component\Process\Process;
use Symfony\Component\Uid\Uuid;
use Verjuicer\App\Catalogue\Sensor\Sensors;
use Verjuicer\App\Ledger\Series\Assignments;
use Verjuicer\App\Ledger\Series\Target;
use Verjuicer\App\Platform\Mqtt\Broker;
use Verjuicer\App\Platform\Mqtt\MqttLost;
use Verjuicer\App\Platform\Mqtt\MqttMessage;
use Verjuicer\App\Platform\Now;
use Verjuicer\App\Work\Probe\ListenCommand;
use Verjuicer\App\Work\Probe\SignedMessage;
use Verjuicer\Core\Measure\Instant;
use Verjuicer\Tests\App\KitchenTestCase;

/** Over MQTT, with a real broker: at least once in, once kept. */
final class ListenTest extends KitchenTestCase
{
    private ?Process $broker = null;
    private string $directory = '';
    private bool $isBroken = true;
    /** @var list<string> */
    private array $heard = [];

    protected function setUp(): void
    {
        $port = random_int(20_000, 29_000);
        // Read when the container is built.
        $_SERVER['MQTT_URL'] = $_ENV['MQTT_URL'] = "tcp://127.0.0.1:$port";
        parent::setUp();
        $this->directory = sys_get_temp_dir().'/mqtt-'.$port;
        mkdir($this->directory);
        file_put_contents($this->directory.'/conf', "listener $port 127.0.0.1\nallow_anonymous true\nuser root\n");
        $program = (new ExecutableFinder())->find('mosquitto', '/usr/sbin/mosquitto');
        $this->broker = new Process([(string) $program, '-c', $this->directory.'/conf']);
        $this->broker->start();
        for ($tries = 0; $tries < 50 && @fsockopen('127.0.0.1', $port) === false; ++$tries) {
            usleep(100_000);
        }
    }

    protected function tearDown(): void
    {
        $this->broker?->stop(2);
        unlink($this->directory.'/conf');
        rmdir($this->directory);
        unset($_SERVER['MQTT_URL'], $_ENV['MQTT_URL']);
        parent::tearDown();
    }

    public function testWhatIsPublishedWhileNobodyListensIsKeptOnce(): void
    {
        $account = $this->logIn();
        [$id, $secret] = $this->service(Sensors::class)->register('P5', 1, '', $account);
        $now = $this->service(Now::class)->instant()->epoch;
        $channel = $this->words("SELECT id FROM sensor_channel WHERE sensor_id = '$id'");
        $since = Instant::ofEpoch($now - 3600);
        $this->service(Assignments::class)->put(
            Uuid::v7(),
            $channel,
            $account,
            $since,
            Target::Batch,
            batch: $this->batch(7),
            spot: 'flat',
        );
        // It has been there once: the broker keeps for it what comes from now on.
        $this->listen();
        $body = json_encode(
            ['readings' => [['sequence' => 1, 'at' => gmdate(\DATE_RFC3339, $now - 10), 'temp' => ['f' => 151.2]]]],
            \JSON_THROW_ON_ERROR,
        );
        $broker = $this->service(Broker::class)->connect('probe');
        $message = SignedMessage::of($secret, $body);
        self::assertStringNotContainsString($secret, $message->topic().$message->payload(), 'no secret travels');
        $broker->publish($message->topic(), $message->payload());
        $broker->publish($message->topic(), $message->payload());
        // As a sensor of an early version does.
        $broker->publish('verjuicer/1/readings/'.$secret, $body);
        $broker->publish('verjuicer/1/readings/nobody', $body);
        $broker->publish($message->topic(), 'no JSON');
        foreach ([$body, $message->body] as $at => $forged) {
            $other = SignedMessage::of($at === 0 ? 'another secret' : $secret, str_replace('151.2', '203.5', $forged));
            $broker->publish($message->topic(), json_encode(
                ['body' => str_replace('"sequence":1', '"sequence":2', $forged), 'mac' => $other->mac],
                \JSON_THROW_ON_ERROR,
            ));
        }
        self::assertSame(0, $this->number("SELECT count(*) FROM series WHERE channel_id = '$channel'"));
        $this->listen();
        self::assertSame(1, $this->number("SELECT count(*) FROM series WHERE channel_id = '$channel'"));
        self::assertSame(1, $this->number("SELECT count(*) FROM event WHERE initials = 'P5'"));
    }

    public function testAnswersSayWhatBecameOfAMessage(): void
    {
        $account = $this->logIn();
        [$id, $secret] = $this->service(Sensors::class)->register('P5', 1, '', $account);
        $this->listen();
        $probe = $this->service(Broker::class)->connect('probe');
        $probe->subscribe(ListenCommand::ANSWERS.$id);
        foreach (['{"readings":[{"sequence":1}]}', '{"sent_at":"2200-01-01T00:00:00Z","readings":[]}'] as $body) {
            $message = SignedMessage::of($secret, $body);
            $probe->publish($message->topic(), $message->payload());
        }
        $this->listen();
        $this->isBroken = false;
        $probe->listen(1, $this->take(...));
        self::assertCount(2, $this->heard);
        self::assertStringContainsString('refused', $this->heard[0]);
        self::assertStringContainsString('sent_at', $this->heard[1]);
    }

    public function testWhatCouldNotBeKeptComesAgain(): void
    {
        $connection = $this->service(Broker::class)->connect('fragile');
        $connection->subscribe('test/+');
        $this->service(Broker::class)->connect('probe')->publish('test/1', 'once');
        try {
            $connection->listen(2, $this->take(...));
            self::fail('it was taken');
        } catch (\DomainException) {
        }
        $this->isBroken = false;
        unset($connection);
        $this->service(Broker::class)->connect('fragile')->listen(2, $this->take(...));
        self::assertSame(['once'], $this->heard);
    }

    public function testABrokerThatIsAwayIsSaid(): void
    {
        $this->broker?->stop(2);
        $this->expectException(MqttLost::class);
        $this->service(Broker::class)->connect('probe');
    }

    private function take(MqttMessage $message): void
    {
        if ($this->isBroken) {
            throw new \DomainException('the database is away');
        }
        $this->heard[] = $message->payload;
    }

    private function listen(): void
    {
        $tester = new CommandTester($this->service(ListenCommand::class));
        self::assertSame(0, $tester->execute(['--time-limit' => '2']), $tester->getDisplay());
    }
}
