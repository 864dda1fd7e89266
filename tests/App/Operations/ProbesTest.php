<?php

declare(strict_types=1);

namespace Verjuicer\Tests\App\Operations;

use PHPUnit\Framework\Attributes\DataProvider;
use Symfony\Component\Uid\Uuid;
use Verjuicer\App\Catalogue\Pit\Pits;
use Verjuicer\App\Catalogue\Sensor\Sensor;
use Verjuicer\App\Catalogue\Sensor\Sensors;
use Verjuicer\App\Ledger\Assessment\Assessments;
use Verjuicer\App\Ledger\Series\Assignments;
use Verjuicer\App\Ledger\Series\ChannelTarget;
use Verjuicer\App\Ledger\Series\SeriesBlocks;
use Verjuicer\App\Operations\Alarm\AlarmWatch;
use Verjuicer\App\Operations\Probe\SensorTroubles;
use Verjuicer\App\Platform\Machine\BackgroundProcesses;
use Verjuicer\App\Platform\Now;
use Verjuicer\Core\Assess\Evidence\TrackReading;
use Verjuicer\Core\Measure\Instant;
use Verjuicer\Tests\App\KitchenTestCase;

/** Probes that log themselves: what they send over the API, and what of it the record of a batch says. */
final class ProbesTest extends KitchenTestCase
{
    private string $secret = '';
    private string $id = '';

    public function testAReadingSentIsKeptOnceAndInTheRecord(): void
    {
        $this->register(7);
        $now = $this->service(Now::class)->instant()->epoch;
        $sent = [
            'sent_at' => gmdate(\DATE_RFC3339, $now),
            'readings' => [
                self::reading(1, $now - 20, 151.2),
                self::reading(2, $now - 10, 151.4),
                self::reading(3, $now, 155.0),
            ],
        ];
        self::assertSame(['kept', 'kept', 'kept'], $this->post($sent));
        self::assertSame(['known', 'known', 'known'], $this->post($sent), 'a retry changes nothing');
        self::assertSame([151.2, 151.4, 155.0], $this->read(7, 'P5'), 'first, and both sides of a limit');
        self::assertSame(3, $this->number("SELECT count(*) FROM series WHERE channel_id = '{$this->channel()}'"));
        $event = $this->words("SELECT initials || ' ' || members::text FROM event WHERE initials = 'P5' LIMIT 1");
        self::assertStringContainsString('"logger": true', $event);
    }

    public function testAReadingTakenByHandNeverStandsAsTheProbes(): void
    {
        $this->register(7);
        $now = $this->service(Now::class)->instant()->epoch;
        $this->post(['readings' => [self::reading(1, $now - 20, 170.2), self::reading(2, $now, 170.4)]]);
        $this->logIn();
        $this->keep('7 171');
        self::assertResponseRedirects();
        $last = "SELECT members->>'thermometer' FROM event WHERE type = 'reading' ORDER BY seq DESC LIMIT 1";
        self::assertSame('T1', $this->words($last), 'the hand thermometer it was read with before');
        // One that only a probe has read so far: it is asked.
        $this->asOwner();
        $this->connection()->executeStatement(
            'ALTER TABLE event DISABLE TRIGGER USER; UPDATE event SET members = members || \'{"logger": true}\'
             WHERE type = \'reading\' AND batch_id = (SELECT id FROM batch WHERE tag = 7);
             ALTER TABLE event ENABLE TRIGGER USER',
        );
        $this->connection()->executeStatement('DELETE FROM abridged_record');
        $this->connection()->executeStatement('SET ROLE verjuicer_app');
        $page = $this->keep('7 172');
        self::assertResponseStatusCodeSame(422);
        self::assertStringContainsString('Only a probe has read this batch', $page->filter('[role=alert]')->text());
        $this->keep('7 172 T2');
        self::assertResponseRedirects();
        self::assertSame('T2', $this->words($last));
    }

    /** @param array<string, mixed> $sent */
    #[DataProvider('nonsense')]
    public function testANumberNoClockSaysIsRefusedAndStopsNothing(array $sent, string $pointer): void
    {
        $this->register(7);
        $now = $this->service(Now::class)->instant()->epoch;
        $one = ['sequence' => 1, 'at' => gmdate(\DATE_RFC3339, $now), 'temp' => ['f' => 150.0]];
        $body = isset($sent['reading']) ? ['readings' => [$sent['reading'] + $one]] : $sent + ['readings' => [$one]];
        $this->send($body);
        self::assertResponseStatusCodeSame(422);
        self::assertStringContainsString(
            (string) json_encode($pointer),
            (string) $this->client->getResponse()->getContent(),
        );
        self::assertSame(['kept'], $this->post(['readings' => [self::reading(1, $now, 151.2)]]), 'the next is taken');
    }

    /** @return iterable<string, array{array<string, mixed>, string}> */
    public static function nonsense(): iterable
    {
        yield 'sent in 2100' => [['sent_at' => '2100-01-01T00:00:00Z'], '/sent_at'];
        yield 'sent in the year 9999' => [['sent_at' => '9999-12-31T23:59:59Z'], '/sent_at'];
        yield 'sent before 1970' => [['sent_at' => '1900-01-01T00:00:00Z'], '/sent_at'];
        yield 'a battery of 101' => [['battery_percent' => 101], '/battery_percent'];
        yield 'a battery of less than nothing' => [['battery_percent' => -1], '/battery_percent'];
        yield 'a sequence no JSON keeps' => [
            ['reading' => ['sequence' => 9_007_199_254_740_992]],
            '/readings/0/sequence',
        ];
        yield 'read in the year 0' => [['reading' => ['at' => '0000-01-01T00:00:00Z']], '/readings/0/at'];
        yield 'a channel there cannot be' => [['reading' => ['channel' => 4_000_000_000]], '/readings/0/channel'];
    }

    public function testAClockThatBeginsIn1970IsSetRight(): void
    {
        $this->register(7);
        self::assertSame(['kept'], $this->post([
            'sent_at' => '1970-01-01T00:01:00Z',
            'readings' => [['sequence' => 1, 'at' => '1970-01-01T00:00:55Z', 'temp' => ['f' => 151.0]]],
        ]));
    }

    public function testAMessageThatFailsTwiceIsADeadLetterAndHoldsUpNoOther(): void
    {
        $this->register(7);
        $now = $this->service(Now::class)->instant()->epoch;
        $this->asOwner();
        $this->connection()->executeStatement('CREATE FUNCTION fails() RETURNS trigger LANGUAGE plpgsql AS $$ BEGIN
            IF NEW.sequence = 13 THEN RAISE EXCEPTION \'unlucky\'; END IF; RETURN NEW; END $$');
        $this->connection()->executeStatement(
            'CREATE TRIGGER fails BEFORE INSERT ON series FOR EACH ROW EXECUTE FUNCTION fails()',
        );
        $this->connection()->executeStatement('SET ROLE verjuicer_app');
        $this->send(['readings' => [self::reading(13, $now - 20, 151.2)]]);
        self::assertResponseStatusCodeSame(422);
        self::assertStringContainsString('do not send it again', (string) $this->client->getResponse()->getContent());
        self::assertSame(['kept'], $this->post(['readings' => [self::reading(14, $now, 151.2)]]));
        $this->logIn();
        $this->service(AlarmWatch::class)->tell($this->logIn()->site);
        $page = $this->client->request('GET', '/sensors');
        self::assertSelectorTextContains('[aria-labelledby=dead-letters]', 'P5');
        self::assertStringContainsString('"sequence":13', $page->filter('pre')->text());
        self::assertStringContainsString('could not be recorded', $this->client->request('GET', '/alarms')->text());
        $page = $this->client->request('GET', '/sensors');
        $this->client->submit($page->selectButton('Mark as reviewed')->form());
        $this->client->followRedirect();
        self::assertSelectorNotExists('[aria-labelledby=dead-letters]');
    }

    public function testReadingsThatNeverCameAreSaidOnSensorAndBatch(): void
    {
        $this->register(7);
        $now = $this->service(Now::class)->instant()->epoch;
        $this->post(['readings' => [self::reading(1, $now - 1300, 170.0), self::reading(125, $now - 700, 171.0)]]);
        $this->post(['readings' => [self::reading(126, $now, 172.0)]]);
        $page = $this->client->request('GET', $this->path(7).'/log');
        self::assertStringContainsString('sensor readings missing', $page->text());
        self::assertSame(
            '123',
            $this->words("SELECT members->>'count' FROM event WHERE members->>'step' = 'readings_missing'"),
        );
        $this->logIn();
        self::assertStringContainsString(
            '123 readings missing',
            $this->client->request('GET', '/sensors/'.$this->id)->text(),
        );
    }

    public function testARequestOfWhichNothingIsTakenIsNoSuccess(): void
    {
        $this->register(7);
        $now = $this->service(Now::class)->instant()->epoch;
        $this->send(['readings' => [self::reading(1, $now + 3600, 150.0)]]);
        self::assertResponseStatusCodeSame(422);
        $this->send(['readings' => [self::reading(1, $now + 3600, 150.0), self::reading(2, $now, 150.0)]]);
        self::assertResponseStatusCodeSame(200);
        $this->client->request('POST', '/api/v1/readings', server: [
            'HTTP_AUTHORIZATION' => 'Bearer '.$this->secret,
            'CONTENT_TYPE' => 'text/plain',
        ], content: '{"readings":[]}');
        self::assertResponseStatusCodeSame(415);
    }

    public function testASensorIsNotAccusedForTheTimeTheApplicationWasAway(): void
    {
        $this->register(7);
        $now = $this->service(Now::class)->instant()->epoch;
        $this->post(['readings' => [self::reading(1, $now - 3000, 170.0)]]);
        $site = $this->logIn()->site;
        self::assertNotSame([], $this->service(SensorTroubles::class)->of($site));
        $processes = $this->service(BackgroundProcesses::class);
        $processes->started(BackgroundProcesses::WATCH);
        $processes->beat(BackgroundProcesses::WATCH);
        self::assertSame([], $this->service(SensorTroubles::class)->of($site), 'it has only just come back');
    }

    public function testEachReadingHasItsAnswer(): void
    {
        $this->register(7);
        $now = $this->service(Now::class)->instant()->epoch;
        $this->post(['readings' => [self::reading(1, $now - 100, 151.2)]]);
        $answers = $this->answers([
            'readings' => [
                self::reading(1, $now - 90, 151.2),
                ['sequence' => 2, 'at' => 'yesterday', 'temp' => ['f' => 150.0]],
                ['sequence' => 3, 'at' => gmdate(\DATE_RFC3339, $now), 'temp' => ['f' => 5000]],
                self::reading(4, $now + 3600, 150.0),
                self::reading(5, $now - 5, 150.0, 9),
                self::reading(6, $now - 4, 152.0),
            ],
        ]);
        self::assertSame(
            ['refused', 'refused', 'refused', 'refused', 'refused', 'kept'],
            array_column($answers, 'outcome'),
        );
        self::assertSame(
            ['/readings/0/sequence', '/readings/1/at', '/readings/2/temp', '/readings/3/at', '/readings/4/channel'],
            array_column($answers, 'pointer'),
        );
        self::assertStringContainsString('go on from 2', (string) $answers[0]['message']);
    }

    public function testAWrongClockIsMeasuredAppliedAndSaid(): void
    {
        $this->register(7);
        $now = $this->service(Now::class)->instant()->epoch;
        // An hour ahead.
        $this->post([
            'sent_at' => gmdate(\DATE_RFC3339, $now + 3600),
            'readings' => [self::reading(1, $now + 3590, 151.2)],
        ]);
        self::assertSame(
            $now - 10,
            $this->number("SELECT extract(epoch FROM at)::bigint FROM event WHERE initials = 'P5'"),
        );
        self::assertSame(-3600, $this->sensor()->skewSeconds);
        self::assertTrue($this->sensor()->hasWrongClock());
        $this->logIn();
        $page = $this->client->request('GET', '/sensors')->text();
        self::assertStringContainsString('1 h ahead', $page);
    }

    public function testWhatIsNoFoodIsNeverTakenForFood(): void
    {
        $this->register(7);
        $now = $this->service(Now::class)->instant()->epoch;
        $this->post(['battery_percent' => 9, 'readings' => [
            self::reading(1, $now - 300, 151.2),
            self::reading(2, $now - 240, 210.0),
            ['sequence' => 3, 'at' => gmdate(\DATE_RFC3339, $now - 180), 'unplugged' => true],
            self::reading(4, $now - 120, 400.0),
            self::reading(5, $now - 60, 152.0),
        ]]);
        self::assertSame([151.2, 152.0], $this->read(7, 'P5'));
        $this->logIn();
        $page = $this->client->request('GET', '/sensors/'.$this->id)->text();
        foreach (['out of the meat', 'probe not plugged in', 'reading out of range', 'battery'] as $named) {
            self::assertStringContainsString($named, $page);
        }
        $log = $this->client->request('GET', $this->path(7).'/log')->text();
        self::assertStringContainsString('probe readings do not count', $log);
    }

    public function testOnBoardAndBatchAFaultIsNamed(): void
    {
        $this->register(7);
        $now = $this->service(Now::class)->instant()->epoch;
        $this->post(['readings' => [
            self::reading(1, $now - 60, 151.2),
            ['sequence' => 2, 'at' => gmdate(\DATE_RFC3339, $now), 'unplugged' => true],
        ]]);
        $this->logIn();
        self::assertStringContainsString('P5: probe not plugged in', $this->client->request('GET', '/')->text());
        self::assertStringContainsString(
            'P5: probe not plugged in',
            $this->client->request('GET', $this->path(7))->text(),
        );
    }

    public function testAStageSaidLaterHasTheSamplesOnBothSides(): void
    {
        $this->register(7);
        $now = $this->service(Now::class)->instant()->epoch;
        $readings = [];
        for ($second = 0; $second <= 300; $second += 10) {
            $readings[] = self::reading($second, $now - 400 + $second, 151.1 + $second % 30 / 100);
        }
        $this->post(['readings' => $readings]);
        $before = \count($this->read(7, 'P5'));
        // Three minutes ago it came off the heat.
        $this->keep('7 rest 4 min ago');
        $this->post(['readings' => [self::reading(1000, $now - 20, 151.3)]]);
        $edge = $now - 240;
        $near = $this->words(
            "SELECT coalesce(string_agg((extract(epoch FROM at)::bigint - $edge)::text, ' ' ORDER BY at), '') FROM event
             WHERE initials = 'P5' AND abs(extract(epoch FROM at) - $edge) <= 10",
        );
        self::assertSame('-10 0 10', $near);
        self::assertGreaterThan($before, \count($this->read(7, 'P5')));
    }

    public function testAProbePulledWhereAStageBeginsLeavesNoAirInTheRecord(): void
    {
        $this->register(7);
        $now = $this->service(Now::class)->instant()->epoch;
        $this->post(['readings' => [
            self::reading(1, $now - 150, 171.1),
            self::reading(2, $now - 130, 171.3),
            self::reading(3, $now - 110, 210.0),
            self::reading(4, $now - 90, 90.0),
        ]]);
        $this->logIn();
        $this->keep('7 rest 2 min ago');
        $this->post(['readings' => [self::reading(5, $now - 10, 88.0)]]);
        self::assertSame([], array_diff($this->read(7, 'P5'), [171.1, 171.3]));
    }

    public function testWhatComesLateIsInTheRecordAtItsTime(): void
    {
        $this->register(7);
        $now = $this->service(Now::class)->instant()->epoch;
        $this->post(['readings' => [self::reading(1, $now - 300, 151.2), self::reading(3, $now - 200, 152.0)]]);
        $this->post(['readings' => [self::reading(2, $now - 250, 151.6)]]);
        self::assertSame([151.2, 151.6, 152.0], $this->read(7, 'P5'));
        // What was kept while nothing could be sent comes whole, after what was read since.
        $late = [];
        for ($second = 0; $second < 900; ++$second) {
            $late[] = self::reading(1000 + $second, $now - 1300 + $second, 140.1 + $second % 7 / 10);
        }
        $asked = $this->statements(fn () => $this->post(['readings' => $late]));
        self::assertLessThan(80, $asked, 'many cost as few');
        self::assertLessThan(60, \count($this->read(7, 'P5')));
        self::assertSame(2, $this->number("SELECT count(*) FROM sensor_fault WHERE kind = 'out_of_order'"));
    }

    public function testAPitChannelWritesItsLog(): void
    {
        $account = $this->logIn();
        $this->register(null);
        $pit = $this->service(Pits::class)->of($account->site)[0];
        $now = $this->service(Now::class)->instant();
        $this->service(Assignments::class)->put(
            Uuid::v7(),
            $this->channel(),
            $account,
            Instant::ofEpoch($now->epoch - 900),
            ChannelTarget::Pit,
            $pit,
        );
        $this->post(['readings' => [
            self::reading(1, $now->epoch - 90, 251.0),
            self::reading(2, $now->epoch - 60, 252.0),
            self::reading(3, $now->epoch - 30, 260.0),
        ]]);
        self::assertSame(
            '251 260',
            $this->words("SELECT string_agg(members->'temp'->>'f', ' ' ORDER BY at) FROM site_event
                WHERE subject_id = '{$pit->id->toRfc4122()}' AND initials = 'MR'
                AND members->>'words' = 'P5'"),
        );
    }

    public function testAFailedCheckDoubtsWhatItRead(): void
    {
        $this->register(7);
        $now = $this->service(Now::class)->instant()->epoch;
        $this->post(['readings' => [self::reading(1, $now - 60, 151.2)]]);
        $thermometer = $this->words("SELECT id FROM thermometer WHERE label = 'P5'");
        $this->logIn();
        $page = $this->client->request('GET', '/thermometers/'.$thermometer);
        self::assertStringContainsString('P5', $page->text());
    }

    public function testSamplesAreHashedInBlocksOfTheChain(): void
    {
        $this->register(7);
        $now = $this->service(Now::class)->instant()->epoch;
        $this->post(['readings' => [self::reading(1, $now - 20, 151.2), self::reading(2, $now - 10, 151.4)]]);
        $site = $this->logIn()->site;
        $blocks = $this->service(SeriesBlocks::class);
        self::assertSame(0, $blocks->close($site), 'it is open yet');
        self::assertSame(1, $blocks->close($site, true));
        self::assertNull($blocks->firstBroken($site));
        $this->asOwner();
        $part = $this->words("SELECT relname FROM pg_class WHERE relname LIKE 'series_2%' AND relkind = 'r'
            ORDER BY relname DESC LIMIT 1");
        $this->connection()->executeStatement("ALTER TABLE $part DISABLE TRIGGER USER");
        $this->connection()->executeStatement("UPDATE $part SET tenths = 1650 WHERE sequence = 2");
        self::assertNotNull($blocks->firstBroken($site), 'a changed sample is found');
    }

    public function testOnlyItsTokenLetsItIn(): void
    {
        $this->register(7);
        $body = json_encode(['readings' => []], \JSON_THROW_ON_ERROR);
        foreach ([[], ['HTTP_AUTHORIZATION' => 'Bearer wrong']] as $headers) {
            $this->nobody();
            $this->client->request('POST', '/api/v1/readings', server: $headers, content: $body);
            self::assertSame(401, $this->client->getResponse()->getStatusCode());
        }
        $account = $this->logIn();
        $this->service(Sensors::class)->revoke($this->sensor(), $account->site);
        $this->nobody();
        $this->client->request(
            'POST',
            '/api/v1/readings',
            server: ['HTTP_AUTHORIZATION' => 'Bearer '.$this->secret],
            content: $body,
        );
        self::assertSame(401, $this->client->getResponse()->getStatusCode());
    }

    /** Of one batch, or nowhere yet. */
    private function register(?int $tag): void
    {
        $account = $this->logIn();
        [$this->id, $this->secret] = $this->service(Sensors::class)->register('P5', 1, '', $account);
        if ($tag !== null) {
            $batch = $this->batch($tag);
            $this->service(Assignments::class)->put(
                Uuid::v7(),
                $this->channel(),
                $account,
                Instant::ofEpoch($this->service(Now::class)->instant()->epoch - 3600),
                ChannelTarget::Batch,
                batch: $batch,
                spot: 'flat',
            );
        }
    }

    private function sensor(): Sensor
    {
        $sensor = $this->service(Sensors::class)->find($this->logIn()->site, $this->id);
        self::assertNotNull($sensor);

        return $sensor;
    }

    private function channel(): string
    {
        return $this->words("SELECT id FROM sensor_channel WHERE sensor_id = '{$this->id}'");
    }

    /** @return array<string, mixed> */
    private static function reading(int $sequence, int $at, float $degrees, int $channel = 1): array
    {
        return [
            'channel' => $channel,
            'sequence' => $sequence,
            'at' => gmdate('Y-m-d\TH:i:s\Z', $at),
            'temp' => ['f' => round($degrees, 1)],
        ];
    }

    /**
     * @param array<string, mixed> $body
     *
     * @return list<mixed> the outcomes
     */
    private function post(array $body): array
    {
        return array_column($this->answers($body), 'outcome');
    }

    /** @param array<string, mixed> $body */
    private function send(array $body): void
    {
        $this->nobody();
        $this->client->request(
            'POST',
            '/api/v1/readings',
            server: ['HTTP_AUTHORIZATION' => 'Bearer '.$this->secret, 'CONTENT_TYPE' => 'application/json'],
            content: json_encode($body, \JSON_THROW_ON_ERROR),
        );
    }

    /**
     * @param array<string, mixed> $body
     *
     * @return list<array<string, mixed>>
     */
    private function answers(array $body): array
    {
        $this->send($body);
        $content = (string) $this->client->getResponse()->getContent();
        self::assertSame(200, $this->client->getResponse()->getStatusCode(), $content);
        $answer = json_decode($content, true);
        self::assertIsArray($answer);
        self::assertIsArray($answer['readings']);

        /** @var list<array<string, mixed>> */
        return $answer['readings'];
    }

    /** @return list<float> what a batch was read at by a thermometer, by time */
    private function read(int $tag, string $thermometer): array
    {
        $assessment = $this->service(Assessments::class)->of($this->batch($tag));

        return array_values(
            array_map(
                static fn (TrackReading $one): float => $one->temp->tenths / 10,
                array_filter(
                    $assessment->timeline->readings->all(),
                    static fn (TrackReading $one): bool => $one->thermometer === $thermometer,
                ),
            ),
        );
    }
}
