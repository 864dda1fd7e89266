<?php

declare(strict_types=1);

namespace Verjuicer\Tests\App\EntryPoint;

use PHPUnit\Framework\Attributes\DataProvider;
use Symfony\Component\Clock\Clock;
use Symfony\Component\Clock\ClockInterface;
use Symfony\Component\Console\Tester\CommandTester;
use Symfony\Component\HttpClient\MockHttpClient;
use Symfony\Component\HttpClient\Response\MockResponse;
use Symfony\Component\HttpFoundation\Request;
use Verjuicer\App\EntryPoint\Simulate\SimulateCommand;
use Verjuicer\App\Operations\Alarm\Alarm;
use Verjuicer\App\Operations\Alarm\Alarms;
use Verjuicer\App\Operations\Alarm\AlarmWatch;
use Verjuicer\App\Platform\Mqtt\Broker;
use Verjuicer\App\Site\Site\Site;
use Verjuicer\Tests\App\KitchenTestCase;

/** The demo as it is played: a quiet hour raises no alarm, and each fault raises its own. */
final class SimulateTest extends KitchenTestCase
{
    use DemoInTests;

    private int $secondsAnAnswer = 0;
    /** Ticks of the sensors between two looks of the watch. */
    private int $looksEvery = 2;

    /** As at twenty times its speed: each answer takes seconds of the kitchen, and the crew waits for it. */
    public function testAQuietHourRaisesNoAlarmHoweverSlowTheServerIs(): void
    {
        $this->secondsAnAnswer = 2;
        $this->looksEvery = 6;
        self::assertSame([], array_map(
            static fn (Alarm $one): string => "$one->words: $one->does",
            $this->newAlarms([], 60),
        ));
    }

    /**
     * @param list<string> $faults
     * @param array<string, int> $raised within how many seconds an alarm must be raised, by what its cause begins with
     */
    #[DataProvider('faults')]
    public function testEachFaultRaisesItsOwnAlarm(array $faults, int $minutes, array $raised): void
    {
        $began = Clock::get()->now()->getTimestamp();
        $seconds = [];
        $others = [];
        foreach ($this->newAlarms($faults, $minutes) as $alarm) {
            $of = array_filter(
                array_keys($raised),
                static fn (string $one): bool => str_starts_with($alarm->words, $one),
            );
            foreach ($of as $one) {
                $seconds[$one] = $alarm->raisedAt->epoch - $began;
            }
            if ($of === [] && !str_starts_with($alarm->cause, 'due:')) {
                $others[] = $alarm->words;
            }
        }
        self::assertSame([], $others, 'no other thing is blamed');
        foreach ($raised as $one => $most) {
            self::assertLessThanOrEqual($most, $seconds[$one] ?? \PHP_INT_MAX, $one);
        }
    }

    /** @return iterable<string, array{list<string>, int, array<string, int>}> */
    public static function faults(): iterable
    {
        yield 'pits, a door and a probe' => [
            ['dead-oven:Drum', 'fuel-out:Offset', 'door-open:walk-in', 'probe-out:L1-1'],
            14,
            [
                'Pit Drum is losing heat' => 360,
                'Pit Offset is losing heat' => 360,
                'walk-in is too warm' => 800,
                'L1-1: probe not plugged in' => 30,
            ],
        ];
        yield 'the network of one sensor, the clock of another' => [
            ['network-gone:L1', 'wrong-clock:W1'],
            5,
            ['L1-1, L1-2, L1-3: no readings' => 200, 'W1: wrong clock' => 30],
        ];
        yield 'no power' => [['power-cut'], 5, ['W1: no readings' => 200, 'L1-1, L1-2, L1-3: no readings' => 200]];
    }

    /** Nobody looks: what is due passes, and is told. */
    public function testAForgottenCheckIsTold(): void
    {
        $this->looksEvery = 12;
        self::assertNotSame([], array_filter(
            $this->newAlarms(['forgotten-check'], 40),
            static fn (Alarm $one): bool => str_starts_with($one->cause, 'due:'),
        ));
    }

    /**
     * @param list<string> $faults
     *
     * @return list<Alarm> raised while the demo was played
     */
    private function newAlarms(array $faults, int $minutes): array
    {
        $secrets = $this->loadTheDemo();
        $site = $this->logIn('dell')->site;
        $alarms = $this->service(Alarms::class);
        $before = array_map(static fn (Alarm $one): string => $one->cause, $alarms->open($site));
        $this->play($site, $secrets, ['--fault' => $faults, '--minutes' => (string) $minutes]);
        $rows = $this->connection()->fetchFirstColumn('SELECT id FROM alarm WHERE site_id = ?', [
            $site->id->toRfc4122(),
        ]);
        $all = array_map(
            static fn (mixed $id): ?Alarm => \is_string($id) ? $alarms->find($site, $id) : null,
            $rows,
        );

        return array_values(array_filter(
            $all,
            static fn (?Alarm $one): bool => $one !== null && !\in_array($one->cause, $before, true),
        ));
    }

    /**
     * @param array<string, string> $secrets
     * @param array<string, string|list<string>> $options
     */
    private function play(Site $site, array $secrets, array $options): void
    {
        $file = (string) tempnam(sys_get_temp_dir(), 'simulate');
        file_put_contents($file, json_encode($secrets, \JSON_THROW_ON_ERROR));
        $command = new SimulateCommand(
            new MockHttpClient($this->answered(...)),
            $this->clock($site),
            new Broker(''),
            $file,
            'http://localhost',
        );
        try {
            self::assertSame(0, (new CommandTester($command))->execute($options));
        } finally {
            unlink($file);
        }
    }

    /** The clock of the tests; the watch looks while somebody sleeps. */
    private function clock(Site $site): ClockInterface
    {
        return new class($this->service(AlarmWatch::class), $site, $this->looksEvery) implements ClockInterface {
            private int $slept = 0;

            public function __construct(private AlarmWatch $watch, private Site $site, private int $every)
            {
            }

            public function now(): \DateTimeImmutable
            {
                return Clock::get()->now();
            }

            public function sleep(float|int $seconds): void
            {
                Clock::get()->sleep($seconds);
                if (++$this->slept % $this->every === 0) {
                    $this->watch->look($this->site);
                }
            }

            public function withTimeZone(\DateTimeZone|string $timezone): static
            {
                return $this;
            }
        };
    }

    /** @param array<string, mixed> $options */
    private function answered(string $method, string $url, array $options): MockResponse
    {
        Clock::get()->sleep($this->secondsAnAnswer);
        $headers = \is_array($options['headers'] ?? null) ? $options['headers'] : [];
        $server = [];
        foreach ($headers as $header) {
            [$name, $value] = explode(': ', \is_string($header) ? $header : '', 2) + [1 => ''];
            $name = strtoupper(strtr($name, '-', '_'));
            $server[\in_array($name, ['CONTENT_TYPE', 'CONTENT_LENGTH'], true) ? $name : 'HTTP_'.$name] = $value;
        }
        $body = \is_string($options['body'] ?? null) ? $options['body'] : '';
        parse_str(str_contains($server['CONTENT_TYPE'] ?? '', 'json') ? '' : $body, $fields);
        $cookies = [];
        foreach (explode('; ', $server['HTTP_COOKIE'] ?? '') as $cookie) {
            [$name, $value] = explode('=', $cookie, 2) + [1 => ''];
            if ($name !== '') {
                $cookies[$name] = $value;
            }
        }
        $request = Request::create($url, $method, $fields, $cookies, [], $server, $body);
        $kernel = self::$kernel ?? throw new \LogicException();
        $response = $kernel->handle($request);
        $set = array_map(
            static fn ($cookie): string => 'Set-Cookie: '.$cookie->getName().'='.$cookie->getValue(),
            $response->headers->getCookies(),
        );

        return new MockResponse((string) $response->getContent(), [
            'http_code' => $response->getStatusCode(),
            'response_headers' => $set,
        ]);
    }
}
