<?php

declare(strict_types=1);

namespace Verjuicer\Tests\App\Operations;

use PHPUnit\Framework\Attributes\DataProvider;
use Verjuicer\App\Operations\Alarm\AlarmChannel;
use Verjuicer\App\Operations\Alarm\DutyRoster;
use Verjuicer\App\Platform\Now;
use Verjuicer\Tests\App\KitchenTestCase;

/** Who is told of what: shifts, numbers, and what each level does by day and by night. */
final class DutyPagesTest extends KitchenTestCase
{
    /** @return iterable<string, array{array<string, string>, string|null}> what is given, and what is wrong of it */
    public static function shifts(): iterable
    {
        yield 'right' => [[], null];
        yield 'over midnight' => [['from' => '22:00', 'to' => '05:30'], null];
        yield 'no hour' => [['from' => '24:00'], 'from'];
        yield 'words' => [['to' => 'noon'], 'to'];
        yield 'nobody' => [['who' => '01a21ad5-69e8-7f0f-bd8f-78882ee2b297'], 'who'];
        yield 'no place in line' => [['in_line' => '0'], 'in_line'];
        yield 'on no day' => [self::days(''), 'days'];
    }

    /** @param array<string, string> $given */
    #[DataProvider('shifts')]
    public function testAShiftIsAddedOrItsFaultNamed(array $given, ?string $wrong): void
    {
        $account = $this->logIn('dell');
        $duty = $this->service(DutyRoster::class);
        $before = \count($duty->shifts($account->site));
        $who = $duty->contacts($account->site)[0]->accountId;
        $this->post('/duty/shifts', $given + ['who' => $who, 'in_line' => '2', 'from' => '18:00', 'to' => '06:00']
            + self::days('1'));
        self::assertResponseStatusCodeSame($wrong === null ? 303 : 422);
        if ($wrong !== null) {
            self::assertNotSame('', $this->client->getCrawler()->filter("#problem-$wrong")->text());
        }
        self::assertCount($before + ($wrong === null ? 1 : 0), $duty->shifts($account->site));
    }

    public function testAShiftIsRemovedByTheManagerOfItsSiteAlone(): void
    {
        $account = $this->logIn('dell');
        $duty = $this->service(DutyRoster::class);
        $shift = $duty->shifts($account->site)[0];
        $this->post("/duty/shifts/{$shift->id}/remove", []);
        self::assertResponseRedirects('/duty');
        self::assertNotContains($shift->id, array_column($duty->shifts($account->site), 'id'));
        $this->post("/duty/shifts/{$shift->id}/remove", []);
        self::assertResponseStatusCodeSame(404);
        $this->logIn('ike');
        $this->post("/duty/shifts/{$shift->id}/remove", []);
        self::assertResponseStatusCodeSame(403);
    }

    /** @return iterable<string, array{string, string, string|null}> mail, number, what is wrong */
    public static function contacts(): iterable
    {
        yield 'both' => ['mara@example.org', '+1 (555) 0101', null];
        yield 'neither' => ['', '', null];
        yield 'no mail' => ['mara at home', '', 'mail_MR'];
        yield 'no number' => ['', 'ask Ike', 'phone_MR'];
    }

    #[DataProvider('contacts')]
    public function testNumbersAreKeptOrTheirFaultNamed(string $mail, string $phone, ?string $wrong): void
    {
        $account = $this->logIn('dell');
        $this->post('/duty/contacts', ['mail_MR' => $mail, 'phone_MR' => $phone]);
        self::assertResponseStatusCodeSame($wrong === null ? 303 : 422);
        if ($wrong !== null) {
            self::assertCount(1, $this->client->getCrawler()->filter("#problem-$wrong"));

            return;
        }
        foreach ($this->service(DutyRoster::class)->contacts($account->site) as $contact) {
            if ($contact->initials === 'MR') {
                self::assertSame([$mail, $phone], [$contact->mail, $contact->phone]);
            }
        }
    }

    public function testWhatALevelDoesIsSetForDayAndNight(): void
    {
        $account = $this->logIn('dell');
        $this->post('/duty/levels', ['wake_night_call' => '1', 'wake_day_text' => '1', 'wake_minutes' => '7']);
        self::assertResponseRedirects('/duty');
        $plan = $this->service(DutyRoster::class)->plan($account->site);
        $wake = $plan['wake'];
        self::assertSame([[AlarmChannel::Text], [AlarmChannel::Call], 7], [$wake->day, $wake->night, $wake->minutes]);
        self::assertSame([[], []], [$plan['look']->day, $plan['look']->night]);
        $this->post('/duty/levels', ['wake_minutes' => 'soon']);
        self::assertResponseStatusCodeSame(422);
        self::assertSame(7, $this->service(DutyRoster::class)->plan($account->site)['wake']->minutes);
    }

    public function testWhoIsNextIsSaidForNow(): void
    {
        $account = $this->logIn();
        $line = $this->service(DutyRoster::class)->line($account->site, $this->service(Now::class)->instant());
        $page = $this->client->request('GET', '/duty')->filter('section[aria-labelledby=now]')->text();
        foreach ($line as $contact) {
            self::assertStringContainsString($contact->name, $page);
        }
        foreach ($this->service(DutyRoster::class)->shifts($account->site) as $shift) {
            $this->service(DutyRoster::class)->removeShift($account->site, $shift->id);
        }
        self::assertNotSame('', $this->client->request('GET', '/duty')->filter('section[aria-labelledby=now]')->text());
    }

    /** @return array<string, string> */
    private static function days(string $value): array
    {
        return array_fill_keys(array_map(static fn (int $day): string => "day_$day", range(1, 7)), $value);
    }

    /** @param array<string, string> $given */
    private function post(string $path, array $given): void
    {
        $token = (string) $this->client->request('GET', '/duty')->filter('[name=_token]')->first()->attr('value');
        $this->client->request('POST', $path, ['_token' => $token] + $given);
    }
}
