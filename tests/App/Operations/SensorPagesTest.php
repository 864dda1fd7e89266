<?php

declare(strict_types=1);

namespace Verjuicer\Tests\App\Operations;

use PHPUnit\Framework\Attributes\DataProvider;
use Verjuicer\App\Catalogue\Pit\Pits;
use Verjuicer\App\Catalogue\Sensor\Sensor;
use Verjuicer\App\Catalogue\Sensor\Sensors;
use Verjuicer\App\Operations\Probe\PlacementTarget;
use Verjuicer\App\Operations\Probe\PostedReading;
use Verjuicer\App\Operations\Probe\PostedReadings;
use Verjuicer\App\Platform\Now;
use Verjuicer\Tests\App\KitchenTestCase;

/** Sensors on their pages: registered, placed, given another secret, no longer listened to; and what they may send. */
final class SensorPagesTest extends KitchenTestCase
{
    public function testItIsRegisteredPlacedMovedRenewedAndRevoked(): void
    {
        $account = $this->logIn('dell');
        $this->client->request('GET', '/sensors');
        $page = $this->client->submitForm('Register', ['name' => 'L9', 'channels' => '2', 'serial' => 'A-1']);
        self::assertResponseIsSuccessful();
        $secret = trim($page->filter('section code')->text());
        self::assertStringNotContainsString($secret, $this->words("SELECT token_hash FROM access_token t
            JOIN sensor s ON s.id = t.sensor_id WHERE s.name = 'L9'"));
        self::assertSame(200, $this->send($secret, 1));
        $sensor = $this->sensor('L9');
        self::assertSame(['L9-1', 'L9-2'], array_map(static fn ($one): string => $one->label, $sensor->channels));

        $pit = $this->service(Pits::class)->of($account->site)[0];
        $batch = $this->batch(7);
        foreach (
            [
                'pit:'.$pit->id->toRfc4122() => $pit->name,
                'batch:'.$batch->id->toRfc4122() => '7 ',
                'place:walk-in' => 'walk-in',
                'none' => 'nowhere',
            ] as $choice => $told
        ) {
            $this->place($sensor, 2, ['where' => $choice, 'piece' => '1', 'spot' => 'core', 'when' => 'now']);
            self::assertResponseRedirects('/sensors/'.$sensor->id);
            $shown = $this->client->followRedirect()->filter('section[aria-labelledby=channel-2]')->text();
            self::assertStringContainsString($told, $shown);
        }
        self::assertSame(
            4,
            $this->number("SELECT count(*) FROM sensor_assignment WHERE channel_id = '{$sensor->channels[1]->id}'"),
            'where it was stays written down',
        );
        self::assertSame(
            'probe_placed probe_pulled',
            $this->words("SELECT string_agg(type, ' ' ORDER BY seq) FROM event
                WHERE batch_id = '{$batch->id}' AND type LIKE 'probe_p%'"),
        );

        $this->logIn('dell');
        $page = $this->client->request('GET', '/sensors/'.$sensor->id);
        $page = $this->client->submit($page->selectButton('Create new secret')->form());
        $another = trim($page->filter('section code')->text());
        self::assertSame([401, 200], [$this->send($secret, 2), $this->send($another, 3)]);
        $page = $this->client->request('GET', '/sensors/'.$sensor->id);
        $this->client->submit($page->selectButton('Retire sensor')->form());
        self::assertResponseRedirects('/sensors');
        self::assertSame(401, $this->send($another, 4));
        self::assertStringContainsString(
            'retired on',
            $this->client->request('GET', '/sensors/'.$sensor->id)->filter('main')->text(),
        );
    }

    /** @return iterable<string, array{array<string, string>, string}> what is wrong of a registration, and of what */
    public static function registrations(): iterable
    {
        yield 'no name' => [['name' => ''], 'name'];
        yield 'a name that is none' => [['name' => '9 9'], 'name'];
        yield 'a name that is taken' => [['name' => 'L1'], 'name'];
        yield 'no channels' => [['channels' => '0'], 'channels'];
        yield 'a crowd of channels' => [['channels' => '99'], 'channels'];
    }

    /** @param array<string, string> $given */
    #[DataProvider('registrations')]
    public function testARegistrationThatCannotBeIsSaidSo(array $given, string $field): void
    {
        $this->logIn('dell');
        $before = $this->number('SELECT count(*) FROM sensor');
        $this->client->request('GET', '/sensors');
        $page = $this->client->submitForm('Register', $given + ['name' => 'L8', 'channels' => '1', 'serial' => 'kept']);
        self::assertResponseStatusCodeSame(422);
        self::assertNotSame('', $page->filter("#problem-$field")->text());
        self::assertSame('kept', $page->filter('[name=serial]')->attr('value'), 'nothing typed is lost');
        self::assertSame($before, $this->number('SELECT count(*) FROM sensor'));
    }

    /** @return iterable<string, array{array<string, string>}> */
    public static function places(): iterable
    {
        yield 'of nothing' => [['where' => 'elsewhere']];
        yield 'a batch that is not open' => [['where' => 'batch:01a21ad5-69e8-7f0f-bd8f-78882ee2b297']];
        yield 'is in the future' => [['where' => 'none', 'when' => '23:59']];
        yield 'no time' => [['where' => 'none', 'when' => 'soon']];
        yield 'no piece' => [['where' => 'none', 'piece' => 'two']];
    }

    /** @param array<string, string> $given */
    #[DataProvider('places')]
    public function testAPlaceThatCannotBeIsSaidSo(array $given): void
    {
        $this->logIn();
        $sensor = $this->sensor('L1');
        $before = $this->number('SELECT count(*) FROM sensor_assignment');
        $this->place($sensor, 1, $given + ['piece' => '1', 'spot' => 'core', 'when' => 'now']);
        self::assertResponseStatusCodeSame(422);
        self::assertSame($before, $this->number('SELECT count(*) FROM sensor_assignment'));
    }

    public function testWhatItSaidIsTakenOutAsItCame(): void
    {
        $this->logIn('dell');
        $this->client->request('GET', '/sensors');
        $page = $this->client->submitForm('Register', ['name' => 'L9', 'channels' => '1', 'serial' => '']);
        $secret = trim($page->filter('section code')->text());
        $this->send($secret, 5);
        $this->send($secret, 6, unplugged: true);
        ob_start();
        $this->client->request('GET', "/sensors/{$this->sensor('L9')->id}/channels/1/series.csv");
        ob_end_clean();
        $lines = explode("\n", trim(str_replace("\r", '', $this->client->getInternalResponse()->getContent())));
        self::assertSame('thermometer,sequence,at,temperature,unit', ltrim($lines[0], "\u{FEFF}"));
        self::assertMatchesRegularExpression('/^L9,5,2026-[\dT:-]+Z,151\.2,F$/', $lines[1] ?? '');
        self::assertMatchesRegularExpression('/^L9,6,2026-[\dT:-]+Z,,$/', $lines[2] ?? '');
    }

    /** @return iterable<string, array{string, string|null}> what is sent, and where its problem is */
    public static function posted(): iterable
    {
        yield 'nothing' => ['', ''];
        yield 'a list' => ['[]', ''];
        yield 'no readings' => ['{}', '/readings'];
        yield 'readings that are no list' => ['{"readings": 3}', '/readings'];
        yield 'no time' => ['{"readings": [], "sent_at": "noon"}', '/sent_at'];
        yield 'no percent' => ['{"readings": [], "battery_percent": "full"}', '/battery_percent'];
        yield 'too many' => ['{"readings": ['.implode(',', array_fill(0, 1001, '0')).']}', '/readings'];
        yield 'as many as may be' => ['{"readings": ['.implode(',', array_fill(0, 1000, '0')).']}', null];
    }

    #[DataProvider('posted')]
    public function testWhatIsSentIsReadOrItsFaultNamed(string $json, ?string $pointer): void
    {
        $posted = PostedReadings::read($json);
        self::assertSame($pointer, $posted->problems[0]->pointer ?? null);
        self::assertCount($pointer === null ? 1000 : 0, $posted->readings);
    }

    /** @return iterable<string, array{string, string|null}> */
    public static function readings(): iterable
    {
        $at = '"at": "2026-05-02T12:00:00Z"';
        yield 'whole' => ["{\"sequence\": 1, $at, \"temp\": {\"f\": 150}, \"channel\": 2}", null];
        yield 'unplugged' => ["{\"sequence\": 1, $at, \"unplugged\": true}", null];
        yield 'no object' => ['7', '/readings/4'];
        yield 'no sequence' => ["{{$at}, \"temp\": {\"f\": 150}}", '/readings/4/sequence'];
        yield 'a sequence below nothing' => ["{\"sequence\": -1, $at, \"temp\": {\"f\": 150}}", '/readings/4/sequence'];
        yield 'no time' => ['{"sequence": 1, "temp": {"f": 150}}', '/readings/4/at'];
        yield 'no temperature' => ["{\"sequence\": 1, $at}", '/readings/4/temp'];
        yield 'both units' => ["{\"sequence\": 1, $at, \"temp\": {\"f\": 150, \"c\": 65}}", '/readings/4/temp'];
        yield 'a word' => ["{\"sequence\": 1, $at, \"temp\": {\"f\": \"hot\"}}", '/readings/4/temp'];
        yield 'no channel' => [
            "{\"sequence\": 1, $at, \"temp\": {\"f\": 150}, \"channel\": \"A\"}",
            '/readings/4/channel',
        ];
    }

    #[DataProvider('readings')]
    public function testAReadingIsReadOrItsFaultNamed(string $json, ?string $pointer): void
    {
        $read = PostedReading::read(json_decode($json), '/readings/4');
        $found = $read->problem->pointer ?? null;
        $isNamed = $pointer === null ? $found === null : str_starts_with((string) $found, $pointer);
        self::assertTrue($isNamed, (string) $found);
    }

    /** @return iterable<array{string, bool}> */
    public static function choices(): iterable
    {
        $id = '01a21ad5-69e8-7f0f-bd8f-78882ee2b297';
        yield ['none', true];
        yield ["pit:$id", true];
        yield ["batch:$id", true];
        yield ['place:walk-in: left', true];
        yield ['pit:Drum', false];
        yield ['batch:', false];
        yield ['place:', false];
        yield ['', false];
        yield ['anywhere', false];
    }

    #[DataProvider('choices')]
    public function testAChoiceIsAPlaceOrNone(string $choice, bool $isOne): void
    {
        self::assertSame($isOne, PlacementTarget::chosen($choice, 2, '') !== null);
    }

    private function sensor(string $name): Sensor
    {
        foreach ($this->service(Sensors::class)->of($this->logIn('dell')->site) as $sensor) {
            if ($sensor->name === $name) {
                return $sensor;
            }
        }
        self::fail("There is no $name.");
    }

    /** @param array<string, string> $given */
    private function place(Sensor $sensor, int $number, array $given): void
    {
        $page = $this->client->request('GET', '/sensors/'.$sensor->id);
        $form = $page->filter("form[action$=\"/channels/$number\"]")->form();
        $this->client->request('POST', $form->getUri(), $given + $form->getPhpValues());
    }

    /** @return int the status it is answered with */
    private function send(string $secret, int $sequence, bool $unplugged = false): int
    {
        $at = gmdate(\DATE_RFC3339, $this->service(Now::class)->instant()->epoch - 60 + $sequence);
        $reading = ['sequence' => $sequence, 'at' => $at]
            + ($unplugged ? ['unplugged' => true] : ['temp' => ['f' => 151.2]]);
        $this->nobody();
        $this->client->request(
            'POST',
            '/api/v1/readings',
            server: ['HTTP_AUTHORIZATION' => "Bearer $secret", 'CONTENT_TYPE' => 'application/json'],
            content: json_encode(['readings' => [$reading]], \JSON_THROW_ON_ERROR),
        );
        $status = $this->client->getResponse()->getStatusCode();
        $this->logIn('dell');

        return $status;
    }
}
