<?php

declare(strict_types=1);

namespace Verjuicer\Tests\App\Operations;

use PHPUnit\Framework\Attributes\DataProvider;
use Symfony\Component\Console\Tester\CommandTester;
use Symfony\Component\DomCrawler\Crawler;
use Symfony\Component\HttpClient\MockHttpClient;
use Symfony\Component\HttpClient\Response\MockResponse;
use Symfony\Component\Mailer\Mailer;
use Symfony\Component\Mailer\MailerInterface;
use Symfony\Component\Mailer\Transport;
use Symfony\Component\Mime\Email;
use Symfony\Component\Mime\RawMessage;
use Symfony\Component\Uid\Uuid;
use Verjuicer\App\Catalogue\Pit\Pits;
use Verjuicer\App\Catalogue\Sensor\Sensors;
use Verjuicer\App\Ledger\Log\SiteLog;
use Verjuicer\App\Ledger\Pit\PitHistory;
use Verjuicer\App\Ledger\Series\ArrivedSample;
use Verjuicer\App\Ledger\Series\Assignments;
use Verjuicer\App\Ledger\Series\ChannelTarget;
use Verjuicer\App\Ledger\Series\RawSeries;
use Verjuicer\App\Operations\Alarm\Alarm;
use Verjuicer\App\Operations\Alarm\AlarmChannel;
use Verjuicer\App\Operations\Alarm\AlarmLevel;
use Verjuicer\App\Operations\Alarm\Alarms;
use Verjuicer\App\Operations\Alarm\AlarmWatch;
use Verjuicer\App\Operations\Alarm\DeliveryFailed;
use Verjuicer\App\Operations\Alarm\DutyRoster;
use Verjuicer\App\Operations\Alarm\DutyShift;
use Verjuicer\App\Operations\Alarm\Gateway;
use Verjuicer\App\Operations\Alarm\WatchCommand;
use Verjuicer\App\Platform\Now;
use Verjuicer\App\Site\People\Account;
use Verjuicer\Core\Food\PitSign;
use Verjuicer\Core\Measure\Instant;
use Verjuicer\Core\Measure\Temperature;
use Verjuicer\Tests\App\KitchenTestCase;

/** Warnings that reach somebody: raised once, told in line, taken, settled or put off with a reason; all recorded. */
final class AlarmsTest extends KitchenTestCase
{
    /** @var list<array<string, mixed>> what the gateway was given */
    private array $given = [];
    private int $answers = 202;

    public function testADeadOvenAtNightIsOneAlarmThatWakesInLineUntilSomebodyTakesIt(): void
    {
        $account = $this->logIn();
        $this->overheard();
        [$pit, $inside] = $this->deadOven($account);
        $alarm = $this->raised('pit:');
        self::assertSame(AlarmLevel::Wake, $alarm->level);
        self::assertStringContainsString("Pit $pit is losing heat", $alarm->words);
        self::assertStringContainsString($inside, implode(' ', $alarm->effects), 'one alarm, with its list');
        $open = \count($this->open());
        $this->look();
        self::assertCount($open, $this->open(), 'the same cause raises nothing again');

        // It is 02:10 there, or whenever the test kitchen stands: whoever is first in line is told at once.
        self::assertSame([['text', '+1 555 0101']], $this->toldOf($pit));
        $this->wait(14);
        self::assertCount(2, array_unique(array_column($this->toldOf($pit), 1)), 'nobody took it: the next is told');
        $this->client->request('GET', '/alarms/'.$alarm->id);
        $this->client->submitForm('I\'ve got it (MR)');
        $this->wait(60);
        self::assertCount(2, array_unique(array_column($this->toldOf($pit), 1)), 'somebody has it: nobody else is');
        $page = $this->client->request('GET', '/alarms/'.$alarm->id)->text();
        foreach (['raised', 'alerted', 'escalated', 'assigned'] as $did) {
            self::assertStringContainsString($did, $page);
        }
    }

    public function testWhoeverIsToldReadsTheirOwnLanguageAndTheRecordThatOfTheSite(): void
    {
        $account = $this->logIn();
        $this->overheard();
        $this->asOwner();
        $this->connection()->executeStatement(
            "UPDATE person SET language = 'es' WHERE id IN (SELECT a.person_id FROM account a
             JOIN account_contact c ON c.account_id = a.id WHERE c.phone = '+1 555 0101')",
        );
        $this->connection()->executeStatement('SET ROLE verjuicer_app');
        [$pit] = $this->deadOven($account);
        $told = implode(' ', array_filter(array_column($this->given, 'words'), \is_string(...)));
        self::assertStringContainsString("El ahumador $pit pierde calor", $told);
        self::assertStringContainsString('Ficha', $told, 'what follows from it, too');
        $alarm = $this->raised('pit:');
        self::assertStringContainsString("Pit $pit is losing heat", $alarm->words);
        $raised = $this->service(Alarms::class)->history($alarm->id)[0];
        self::assertStringContainsString("Pit $pit is losing heat", $raised->words);
        $page = $this->client
            ->request('GET', '/alarms/'.$alarm->id, server: ['HTTP_ACCEPT_LANGUAGE' => 'es'])
            ->filter('h1')->text();
        self::assertStringContainsString("El ahumador $pit pierde calor", $page);
    }

    /** The chicken has been on a drum 100 °F under its set point for hours. */
    public function testAPitFarUnderItsSetPointIsAnAlarmOfItsOwn(): void
    {
        $this->look();
        $alarm = $this->raised('due:'.substr($this->path(16), 9).':house:house.pit_low');
        self::assertSame(AlarmLevel::Act, $alarm->level);
        self::assertStringContainsString('Tag 16', $alarm->words);
        $this->logIn();
        $board = $this->client->request('GET', '/')->filter('[data-due]');
        self::assertStringContainsString('pit far below its set point: check fire and fuel', implode(' ', $board->each(
            static fn (Crawler $line): string => $line->text(),
        )));
        $page = $this->client->request('GET', $this->path(16))->filter('main')->text();
        self::assertStringContainsString('The pit has been below its set point of 325 °F', $page);
    }

    /** An open batch that needs a corrective action counts as much as one that ended. */
    public function testNoAlarmDoesNotReadAsNothingOpen(): void
    {
        $this->logIn();
        $this->client->request('GET', '/');
        $this->asOwner();
        $this->connection()->executeStatement('UPDATE alarm SET over_at = now() WHERE over_at IS NULL');
        $open = $this->number('SELECT count(*) FROM board_lane WHERE has_open_action');
        $isOpen = $this->number('SELECT count(*) FROM board_lane WHERE has_open_action AND ended_at IS NULL');
        $this->connection()->executeStatement('SET ROLE verjuicer_app');
        self::assertGreaterThan(0, $isOpen);
        $page = $this->client->request('GET', '/alarms')->filter('main')->text();
        self::assertStringContainsString("No new alarms. $open items still open.", $page);
        // The page of that name lists them all: one that is in progress asks no less.
        $listed = $this->client->request('GET', '/unsettled')->filter('main li a');
        self::assertCount($open, $listed);
    }

    public function testARefusedClockIsToldInLineWithoutARecord(): void
    {
        $this->logIn();
        $this->overheard();
        $records = 'SELECT (SELECT count(*) FROM alarm) + (SELECT count(*) FROM chain_link)';
        $before = $this->number($records);
        $alerts = fn (): array => array_column(
            array_filter(
                $this->given,
                static fn (array $one): bool => \is_string($one['words'])
                    && str_contains($one['words'], 'Alarms are off.'),
            ),
            'to',
        );
        self::mockTime('-3 hours');
        $this->answers = 503;
        $this->look();
        self::assertSame(['+1 555 0101'], array_unique($alerts()));
        $this->given = [];
        $this->answers = 202;
        $this->look();
        self::assertSame(['+1 555 0101'], array_unique($alerts()), 'sent again until the gateway accepts it');
        $this->look();
        self::assertCount(2, $alerts(), 'a text and a call, each once');
        $this->wait(6);
        self::assertCount(2, array_unique($alerts()), 'the next in line after five minutes');
        self::assertSame($before, $this->number($records));
    }

    public function testPuttingOffAsksForAReasonAndComesBack(): void
    {
        $this->logIn();
        $this->overheard();
        $alarm = $this->test();
        $before = \count($this->testsGiven());
        self::assertGreaterThan(0, $before);
        $this->client->request('GET', '/alarms/'.$alarm->id);
        $form = $this->client->getCrawler()->selectButton('Snooze')->form();
        $this->client->submit($form, ['reason' => '', 'minutes' => '30']);
        self::assertResponseStatusCodeSame(422);
        $this->client->submit($form, ['reason' => 'the plumber is on his way', 'minutes' => '30']);
        self::assertResponseRedirects();
        $this->wait(20);
        self::assertCount($before, $this->testsGiven());
        $this->wait(15);
        self::assertGreaterThan($before, \count($this->testsGiven()), 'then the next is told');
        self::assertSame(
            '30 min: the plumber is on his way',
            $this->words("SELECT words FROM alarm_event WHERE type = 'put_off' AND alarm_id = '{$alarm->id}'"),
        );
    }

    public function testWhatTheGatewayDoesNotTakeIsTriedAgainAndSentOnce(): void
    {
        $this->logIn();
        $this->overheard();
        $this->answers = 503;
        $alarm = $this->test();
        $page = $this->client->request('GET', '/alarms/'.$alarm->id)->text();
        self::assertStringContainsString('the gateway answers 503', $page);
        $this->answers = 202;
        $this->wait(1);
        $this->wait(1);
        $ids = array_column($this->testsGiven(), 'id');
        self::assertCount(2, $ids, 'tried twice');
        self::assertCount(1, array_unique($ids), 'under one id: a gateway sends it once');
    }

    public function testSomethingThatIsOverIsSaidToBeAndCanComeAgain(): void
    {
        $account = $this->logIn();
        $this->overheard();
        $this->deadOven($account);
        $alarm = $this->raised('pit:');
        $pit = $this->service(Pits::class)->named($account->site, 'Drum');
        self::assertNotNull($pit);
        $this->service(PitHistory::class)->add(
            Uuid::v7(),
            $pit,
            $account,
            $this->service(Now::class)->instant(),
            PitSign::Out->value,
        );
        $this->look();
        $found = $this->service(Alarms::class)->find($account->site, $alarm->id);
        self::assertNotNull($found?->overAt);
        self::assertFalse($found->isOpen());
        $told = \count($this->toldOf('Drum'));
        $back = $this->words("SELECT id FROM site_event WHERE type = 'out' ORDER BY seq DESC LIMIT 1");
        $wrong = $this->service(SiteLog::class)->find(Uuid::fromString($back));
        self::assertNotNull($wrong);
        self::mockTime('+1 minute');
        $this->service(PitHistory::class)->takeBack(Uuid::v7(), $pit, $account, $wrong, 'another pit');
        $this->look();
        self::assertSame($alarm->id, $this->raised('pit:')->id, 'it asks for somebody again');
        self::assertGreaterThan($told, \count($this->toldOf('Drum')), 'who is told again');
    }

    public function testNobodyWaitsForOneWhoCannotBeTold(): void
    {
        $account = $this->logIn();
        $this->overheard();
        $duty = $this->service(DutyRoster::class);
        $line = $duty->line($account->site, $this->service(Now::class)->instant());
        self::assertGreaterThan(2, \count($line));
        // The second in line has neither number nor mail.
        $duty->keepContact($account->site, $line[1]->accountId, '', '');
        $alarm = $this->test();
        self::assertSame([$line[0]->initials], $this->toldBy($alarm));
        $plan = $duty->plan($account->site)[$alarm->level->value];
        $this->wait($plan->minutes + 1);
        self::assertSame([$line[0]->initials, $line[2]->initials], $this->toldBy($alarm), 'one is passed over');
    }

    /** A server that lets whoever calls in, and never says anything. */
    public function testAMailServerThatHangsHoldsUpTheWatchForSecondsOnly(): void
    {
        $server = stream_socket_server('tcp://127.0.0.1:0');
        self::assertIsResource($server);
        $at = stream_socket_get_name($server, false);
        $before = \ini_get('default_socket_timeout');
        try {
            self::assertSame(0, (new CommandTester($this->service(WatchCommand::class)))->execute(['--once' => true]));
            $mailer = new Mailer(Transport::fromDsn("smtp://$at"));
            $gateway = new Gateway(new MockHttpClient(), $mailer, '', 'kitchen@example.org', 'secret');
            $began = hrtime(true);
            $id = Uuid::v7()->toRfc4122();
            $finish = $gateway->begin($id, '1', AlarmChannel::Mail, 'cook@example.org', 'The fire is out');
            self::assertLessThan(8, (hrtime(true) - $began) / 1e9, 'five seconds, and what is around them');
            $this->expectException(DeliveryFailed::class);
            $finish();
        } finally {
            ini_set('default_socket_timeout', (string) $before);
            fclose($server);
        }
    }

    public function testWhatIsTakenIsNotSentAnyMoreAndWhatIsNotIsTriedForEver(): void
    {
        $this->logIn();
        $this->overheard();
        $this->answers = 503;
        $alarm = $this->test();
        for ($minute = 0; $minute < 90; ++$minute) {
            $this->wait(1);
        }
        self::assertGreaterThan(80, \count($this->testsGiven()), 'nobody gives up on it');
        $this->client->request('GET', '/alarms/'.$alarm->id);
        $this->client->submitForm('I\'ve got it (MR)');
        $given = \count($this->testsGiven());
        $this->answers = 202;
        $this->wait(30);
        self::assertCount($given, $this->testsGiven(), 'No one else is alerted after this');
    }

    public function testMailSaysWhatAndUnderOneId(): void
    {
        $mailer = $this->createMock(MailerInterface::class);
        $sent = null;
        $mailer->expects(self::once())->method('send')->willReturnCallback(
            static function (RawMessage $mail) use (&$sent): void {
                $sent = $mail;
            },
        );
        $gateway = new Gateway(new MockHttpClient(), $mailer, '', 'kitchen@example.org', 'secret');
        $gateway->begin('an-id', 'a-site', AlarmChannel::Mail, 'mara@example.org', 'Pit Drum falls')();
        self::assertInstanceOf(Email::class, $sent);
        self::assertSame('Pit Drum falls', $sent->getTextBody());
        self::assertSame('mara@example.org', $sent->getTo()[0]->getAddress());
        self::assertSame('<an-id@alarm.verjuicer>', $sent->getHeaders()->get('Message-ID')?->getBodyAsString());
        $this->expectException(DeliveryFailed::class);
        $gateway->begin('an-id', 'a-site', AlarmChannel::Call, '+1 555 0101', 'Pit Drum falls')();
    }

    /** @return iterable<string, array{int, bool}> */
    public static function statuses(): iterable
    {
        yield 'taken' => [202, true];
        yield 'sent elsewhere' => [302, false];
        yield 'not let in' => [401, false];
        yield 'broken' => [500, false];
    }

    #[DataProvider('statuses')]
    public function testOnlyAGatewayThatTakesItHasIt(int $status, bool $isTaken): void
    {
        $http = new MockHttpClient([new MockResponse('', ['http_code' => $status])]);
        $gateway = new Gateway($http, $this->createMock(MailerInterface::class), 'http://gateway.test', 'a@b.c', 's');
        if (!$isTaken) {
            $this->expectException(DeliveryFailed::class);
        }
        $gateway->begin('an-id', 'a-site', AlarmChannel::Text, '+1', 'words')();
        self::assertSame(1, $http->getRequestsCount());
    }

    public function testABoardIsSentAnewOnlyWhereSomethingWasRecorded(): void
    {
        $this->logIn();
        $this->client->request('GET', '/board/live');
        $tag = (string) $this->client->getResponse()->getEtag();
        self::assertNotSame('', $tag);
        $again = fn (): int => $this->again($tag);
        self::assertSame(304, $again());
        $asked = $this->statements(static fn () => self::assertSame(304, $again()));
        self::assertLessThanOrEqual(4, $asked, 'whose site it is, who asks, and one read of its state');
        $this->keep('7 171.1');
        self::assertSame(200, $again());
    }

    public function testEveryDoorOfTheKitchenSaysWhatIsBehindIt(): void
    {
        $this->logIn('dell');
        $page = $this->client->request('GET', '/kitchen')->filter('main')->text();
        self::assertDoesNotMatchRegularExpression('/\w+\.\w+_help/', $page);
    }

    public function testTheBoardSoundsForWhatNobodyHas(): void
    {
        $this->logIn();
        $this->overheard();
        $alarm = $this->test();
        $panel = $this->client->request('GET', '/board/live')->filter('[data-alarms]');
        self::assertStringContainsString($alarm->id, (string) $panel->attr('data-sounding'));
        $this->client->request('GET', '/alarms/'.$alarm->id);
        $this->client->submitForm('I\'ve got it (MR)');
        $panel = $this->client->request('GET', '/board/live')->filter('[data-alarms]');
        self::assertStringNotContainsString($alarm->id, (string) $panel->attr('data-sounding'));
    }

    public function testAWeekWithoutATryIsALineOfTheBoard(): void
    {
        $this->logIn();
        self::assertStringContainsString('Send a test alarm', $this->client->request('GET', '/board/live')->text());
        $this->test();
        self::assertStringNotContainsString('Send a test alarm', $this->client->request('GET', '/board/live')->text());
        $this->wait(7 * 24 * 60 + 1);
        $this->logIn();
        self::assertStringContainsString('Send a test alarm', $this->client->request('GET', '/board/live')->text());
    }

    #[DataProvider('shifts')]
    public function testAShiftCoversItsDaysAndItsNight(
        string $from,
        string $to,
        int $weekday,
        string $time,
        bool $is,
    ): void {
        // Monday and Friday.
        $shift = new DutyShift('', '', '', '', 0b0010001, $from, $to, 1);
        self::assertSame($is, $shift->covers($weekday, $time));
    }

    /** @return iterable<array{string, string, int, string, bool}> */
    public static function shifts(): iterable
    {
        yield ['06:00', '21:00', 1, '06:00', true];
        yield ['06:00', '21:00', 1, '21:00', false];
        yield ['06:00', '21:00', 2, '12:00', false];
        yield ['21:00', '06:00', 1, '23:00', true];
        yield ['21:00', '06:00', 2, '02:10', true];
        yield ['21:00', '06:00', 2, '06:00', false];
        yield ['21:00', '06:00', 1, '02:10', false];
        yield ['21:00', '06:00', 6, '05:59', true];
    }

    public function testTheStandInShowsWhatItWasGivenOnceAndLetsNobodyElseIn(): void
    {
        $site = $this->logIn()->site->id->toRfc4122();
        $id = Uuid::v7()->toRfc4122();
        $body = json_encode(
            ['id' => $id, 'channel' => 'call', 'to' => '+1', 'words' => 'Look', 'site' => $site],
            \JSON_THROW_ON_ERROR,
        );
        // A gateway has no session.
        $this->client->restart();
        $this->client->request('POST', '/stand-in', server: ['HTTP_AUTHORIZATION' => 'Bearer no'], content: $body);
        self::assertResponseStatusCodeSame(401);
        $key = 'Bearer '.hash('sha256', 'gatewayonly-for-tests');
        foreach ([1, 2] as $_) {
            $this->client->request('POST', '/stand-in', server: ['HTTP_AUTHORIZATION' => $key], content: $body);
            self::assertResponseStatusCodeSame(202);
        }
        $this->logIn();
        self::assertSame(1, substr_count($this->client->request('GET', '/stand-in')->text(), 'Look'));
    }

    private function again(string $tag): int
    {
        $this->client->request('GET', '/board/live', server: ['HTTP_IF_NONE_MATCH' => $tag]);

        return $this->client->getResponse()->getStatusCode();
    }

    /** @return list<string> initials of whoever was to be told, in their order */
    private function toldBy(Alarm $alarm): array
    {
        /** @var list<string> */
        return $this->connection()->fetchFirstColumn(
            'SELECT a.initials FROM alarm_sending s JOIN account a ON a.id = s.account_id WHERE s.alarm_id = ?
             GROUP BY a.initials, s.step ORDER BY s.step',
            [$alarm->id],
        );
    }

    /** @return array{string, string} the name of the pit, and a product in it */
    private function deadOven(Account $account): array
    {
        $pit = $this->service(Pits::class)->named($account->site, 'Drum');
        self::assertNotNull($pit);
        $now = $this->service(Now::class)->instant()->epoch;
        [$id] = $this->service(Sensors::class)->register('P7', 1, '', $account);
        $sensor = $this->service(Sensors::class)->find($account->site, $id);
        self::assertNotNull($sensor);
        $channel = $sensor->channels[0];
        $history = $this->service(PitHistory::class);
        $at = Instant::ofEpoch($now - 1200);
        $history->add(Uuid::v7(), $pit, $account, $at, PitSign::Set->value, Temperature::fahrenheit('250'));
        $this->service(Assignments::class)->put(Uuid::v7(), $channel->id, $account, $at, ChannelTarget::Pit, $pit);
        $arrived = [];
        for ($second = 0; $second <= 600; $second += 10) {
            $temp = Temperature::ofTenths(2500 - 2 * $second, $account->site->unit);
            $of = Instant::ofEpoch($now - 600 + $second);
            $arrived[] = new ArrivedSample($channel->id, $second, $of, $of, $temp);
        }
        $this->service(RawSeries::class)->add($sensor->siteId, $arrived, Instant::ofEpoch($now));
        $this->service(Sensors::class)->keepState(
            $channel,
            600,
            Instant::ofEpoch($now),
            Temperature::ofTenths(1300, $account->site->unit),
            [],
        );
        $this->look();
        $inside = $this->words("SELECT product_name FROM board_lane l JOIN batch b ON b.id = l.batch_id
            JOIN open_tag o ON o.batch_id = b.id WHERE l.facts->>'pit' = 'Drum' ORDER BY b.tag LIMIT 1");

        return [$pit->name, $inside];
    }

    private function test(): Alarm
    {
        $this->client->request('GET', '/alarms');
        $this->client->submitForm('Send a test alarm');
        self::assertResponseRedirects();
        $this->look();

        return $this->raised(AlarmWatch::TEST);
    }

    private function raised(string $cause): Alarm
    {
        foreach ($this->open() as $alarm) {
            if (str_starts_with($alarm->cause, $cause)) {
                return $alarm;
            }
        }
        self::fail("Nothing raised $cause");
    }

    /** @return list<Alarm> */
    private function open(): array
    {
        return $this->service(Alarms::class)->open($this->logIn()->site);
    }

    private function look(): void
    {
        $this->service(AlarmWatch::class)->look($this->logIn()->site);
    }

    private function wait(int $minutes): void
    {
        $now = $this->service(Now::class)->instant()->epoch;
        self::mockTime(new \DateTimeImmutable('@'.($now + 60 * $minutes)));
        $this->look();
    }

    /** A gateway that listens. */
    private function overheard(): void
    {
        $this->client->disableReboot();
        $http = new MockHttpClient(function (string $method, string $url, array $options): MockResponse {
            $body = $options['body'] ?? '';
            $given = json_decode(\is_string($body) ? $body : '', true);
            self::assertIsArray($given);
            $this->given[] = array_combine(array_map(strval(...), array_keys($given)), $given);

            return new MockResponse('', ['http_code' => $this->answers]);
        });
        self::getContainer()->set('http_client.transport', $http);
        // What the demo is late with is told already.
        $this->look();
        $this->given = [];
    }

    /** @return list<array<string, mixed>> what was told of a test */
    private function testsGiven(): array
    {
        return array_values(
            array_filter(
                $this->given,
                static fn (array $one): bool => \is_string($one['words']) && str_contains(
                    $one['words'],
                    'Test alarm by',
                ),
            ),
        );
    }

    /** @return list<array{mixed, mixed}> channel and number of what was told of a pit */
    private function toldOf(string $pit): array
    {
        $told = [];
        foreach ($this->given as $one) {
            if (\is_string($one['words']) && str_contains($one['words'], "Pit $pit")) {
                $told[] = [$one['channel'], $one['to']];
            }
        }

        return $told;
    }
}
