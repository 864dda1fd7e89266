<?php

declare(strict_types=1);

namespace Verjuicer\Tests\App\Reporting;

use PHPUnit\Framework\Attributes\DataProvider;
use Symfony\Component\DomCrawler\Crawler;
use Symfony\Component\Uid\Uuid;
use Verjuicer\App\Ledger\Chain\ChainVerifier;
use Verjuicer\App\Ledger\Log\SiteLog;
use Verjuicer\App\Platform\Now;
use Verjuicer\App\Projection\Projections;
use Verjuicer\Core\Measure\Instant;
use Verjuicer\Core\Measure\LocalDate;
use Verjuicer\Tests\App\KitchenTestCase;
use Verjuicer\Tests\Kitchen\TestKitchen;

/** The day sheet and its signature, the search and the recall: what a manager verifies and an inspector asks for. */
final class RecordBookTest extends KitchenTestCase
{
    public function testADayNamesWhatWasOnWhatIsOpenAndWhatCameIn(): void
    {
        $day = $this->day(0);
        $page = $this->client->request('GET', '/days/'.$day);
        $row = $page->filter('[data-batch="18"]')->text();
        self::assertStringContainsString('Cooking temperature', $row);
        self::assertStringContainsString('open', $row);
        self::assertStringContainsString(
            'also on another day',
            $page->filter('[data-batch="28"]')->text(),
            'a batch of days ago that is still here',
        );
        self::assertStringContainsString('T2', $page->filter('main')->text());
        self::assertStringContainsString('NF-903', $this->pagesOf($day, -1), 'the refused lot stands on its day');
        self::assertMatchesRegularExpression('/Entry \d+: [0-9a-f]{64}/', $page->filter('main')->text());
    }

    public function testANightsCookStandsOnBothItsDays(): void
    {
        $code = $this->words('SELECT code FROM batch WHERE tag = 24');
        foreach ([0, -1] as $offset) {
            self::assertStringContainsString(
                $code,
                $this->client
                    ->request('GET', '/days/'.$this->day($offset))
                    ->filter('main')
                    ->text(),
            );
        }
    }

    public function testAManagerSignsWithThePasswordAndAReasonForWhatIsOpen(): void
    {
        $day = $this->day(0);
        $this->logIn('dell');
        $page = $this->client->request('GET', '/days/'.$day);
        $form = $page->selectButton('Sign the day')->form(['password' => 'wrong']);
        $page = $this->client->submit($form);
        self::assertSelectorTextContains('#problem-password', 'not your password');
        self::assertGreaterThan(
            1,
            $page->filter('[id^=problem-reason]')->count(),
            'every open finding is settled or named',
        );
        $fields = ['password' => 'oak-and-patience', 'until_now' => '1'];
        foreach (
            $page
->filter('input[name^=reason]')
->each(static fn (Crawler $one): string => (string) $one->attr('name')) as $name
        ) {
            $fields[$name] = 'thrown away tomorrow, seen by the manager';
        }
        $form = $page->selectButton('Sign the day')->form($fields);
        $this->client->submit($form);
        self::assertResponseRedirects('/days/'.$day);
        $this->client->submit($form);
        self::assertSame(1, $this->number('SELECT count(*) FROM day_sign'), 'a retry signs once');
        $page = $this->client->followRedirect();
        self::assertStringContainsString('Signed by Dell Farrow', $page->filter('main')->text());
        self::assertStringNotContainsString('after it was signed', $page->filter('main')->text());
        self::assertStringNotContainsString('result now', $page->filter('main details')->text());
        self::assertNull(
            $this->service(ChainVerifier::class)->firstBreak($this->logIn('mara')->site),
            'the signature is in the chain',
        );

        // What comes later is an amendment, seen as such.
        $this->asOwner();
        $this->connection()->executeStatement('SET session_replication_role = replica');
        $this->connection()->executeStatement("UPDATE day_sign SET at = at - interval '1 minute'");
        $this->connection()->executeStatement('SET session_replication_role = DEFAULT');
        $this->keep('7 174');
        $this->keep('28 60');
        $this->logIn('dell');
        $said = $this->client
            ->request('GET', '/days/'.$day)
            ->filter('main details')
            ->text();
        self::assertStringContainsString(
            'result now: Not met',
            $said,
            'what the sheet said when it was signed stands beside what it says now',
        );
        self::assertStringContainsString('3-401.11(A)(2)', $said, 'with its findings');
        self::assertStringContainsString(
            'Entered after signing',
            $this->client
                ->request('GET', '/days/'.$day)
                ->filter('main')
                ->text(),
        );
        self::assertSame(
            'altered',
            $this->service(ChainVerifier::class)->firstBreak($this->logIn()->site)?->what,
            'and the altered signature is found',
        );
    }

    public function testADayIsSignedOnceItIsOverOrUntilNowByNameAndAmendmentsAlone(): void
    {
        $day = $this->day(0);
        $this->logIn('dell');
        $page = $this->signed($day, []);
        self::assertSelectorTextContains('#problem-until_now', 'The day is not over', 'today is not signed as a whole');
        $this->signed($day, ['until_now' => '1']);
        $main = $this->client->followRedirect()->filter('main')->text();
        self::assertStringContainsString('for the day until 14:00', $main);
        self::assertStringContainsString('Left open: seen (DF, Tue 24 Nov 2026 14:00)', $main, 'with its finding');
        self::mockTime('2026-11-25 10:59:00 UTC');
        self::assertStringContainsString('can be signed from 04:00', $this->sheet($day), 'a minute before four');
        self::mockTime('2026-11-25 11:00:00 UTC');
        $this->logIn('dell');
        self::assertStringNotContainsString('cooked through is open', $this->sheet($day), 'nothing is reasoned twice');
        $this->signed($day, []);
        $sheet = $this->sheet($day);
        self::assertStringContainsString('All entries of this day are signed', $sheet);
        self::assertStringContainsString('Signed by Dell Farrow at Wed 25 Nov 2026 04:00', $sheet);
        $this->client->request('POST', '/days/'.$day, ['password' => 'oak-and-patience']);
        self::assertResponseStatusCodeSame(422, 'nothing is left to sign');
        $id = $this->words('SELECT id FROM day_sign ORDER BY position DESC LIMIT 1');
        $this->client->request('POST', '/days/'.$day, ['id' => $id, 'password' => 'oak-and-patience']);
        self::assertSame(2, $this->number('SELECT count(*) FROM day_sign'), 'a retry is no second signature');
        $this->keep('7 174 yesterday 13:00 because the card lay at the pit', isSure: true);
        $this->logIn('dell');
        self::assertStringContainsString('You sign the entries since the last signature', $this->sheet($day));
        $this->signed($day, []);
        $sheet = $this->sheet($day);
        self::assertStringContainsString('All entries of this day are signed', $sheet);
        self::assertStringContainsString('Signed by Dell Farrow at Wed 25 Nov 2026 04:00', $sheet);
        self::assertSame(3, $this->number('SELECT count(*) FROM day_sign'));
    }

    public function testAFindingStandsOnItsDayAndIsNamedOnLaterOnes(): void
    {
        $this->logIn('dell');
        $row = fn (string $day): Crawler => $this->client->request('GET', '/days/'.$day)->filter('[data-batch="15"]');
        $later = $row($this->day(0));
        self::assertStringContainsString('in the daily log of Mon 23 Nov 2026', $later->text());
        self::assertStringNotContainsString('The readings do not document that it was in time', $later->text());
        $own = $row(basename((string) $later->selectLink('in the daily log of Mon 23 Nov 2026')->attr('href')));
        self::assertStringContainsString('The readings do not document that it was in time', $own->text());
        self::assertMatchesRegularExpression('/\\d+ readings, \\d\\d:\\d\\d to \\d\\d:\\d\\d/', $own->text());
    }

    public function testAnActionSettlesAFindingAndTheSheetSaysWhoseItWas(): void
    {
        $day = $this->day(0);
        $this->logIn('ike');
        $page = $this->client->request('GET', $this->path(18));
        $form = $page->filter('#actions form button:not([name])')->first()->form([
            'other' => 'back on the heat to 150', 'evidence' => 'read 151 in both',
        ]);
        $this->client->submit($form);
        $row = $this->client->request('GET', '/days/'.$day)->filter('[data-batch="18"]')->text();
        self::assertStringContainsString('Resolved 14:00 by MR: back on the heat to 150 (read 151 in both)', $row);
        $this->logIn('dell');
        self::assertStringNotContainsString('Pork loin: cooked through is open', $this->sheet($day));
    }

    /** Food that is gone asks for nothing any more: not on its page, not on the board, not of whoever signs. */
    public function testWhatWasThrownAwayAsksForNothingMore(): void
    {
        $day = $this->day(0);
        $this->logIn('ike');
        self::assertSelectorExists('#actions', $this->client->request('GET', $this->path(18))->text());
        $id = substr($this->path(18), 9);
        $this->keep('18 discard all for safety', isSure: true);
        self::assertResponseRedirects();
        $page = $this->client->request('GET', '/batches/'.$id);
        self::assertSelectorNotExists('#actions', $page->filter('main')->text());
        self::assertStringNotContainsString(
            'Put it back on the heat until the record documents the full requirement',
            $page->filter('main')->text(),
        );
        self::assertSelectorNotExists('[data-due] a[href*="'.$id.'"]', $this->client->request('GET', '/')->text());
        $this->logIn('dell');
        $sheet = $this->sheet($day);
        self::assertStringNotContainsString('Pork loin: cooked through is open', $sheet);
        $row = $this->client->request('GET', '/days/'.$day)->filter('[data-batch="18"]')->text();
        self::assertStringContainsString('Discarded 14:00 by MR', $row);
    }

    public function testWhereASiteAsksForItASecondPersonSigns(): void
    {
        $day = $this->day(-1);
        $this->connection()->executeStatement('UPDATE site SET asks_second_signature = true');
        $this->connection()->executeStatement("UPDATE account SET role = 'manager' WHERE initials = 'MR'");
        self::mockTime('2026-11-25 12:00:00 UTC');
        $this->logIn('dell');
        $this->signed($day, []);
        self::assertStringContainsString(
            'The second signature is missing. Another manager must sign',
            $this->sheet($day),
        );
        self::assertStringNotContainsString('All entries of this day are signed', $this->sheet($day));
        self::assertStringContainsString('Another person signs after you', $this->sheet($day));
        $this->logIn('mara');
        self::assertStringContainsString('Your signature is the second', $this->sheet($day));
        $this->signed($day, []);
        self::assertStringNotContainsString(
            'The second signature is missing. Another manager must sign',
            $this->sheet($day),
        );
        self::assertStringContainsString('All entries of this day are signed', $this->sheet($day));
    }

    public function testWhatDoesNotHoldIsSeenBeforeItIsSignedAndStandsUnderTheSheet(): void
    {
        $day = $this->day(0);
        $this->asOwner();
        $this->connection()->executeStatement('SET session_replication_role = replica');
        $this->connection()->executeStatement(
            "UPDATE event SET initials = 'XX' WHERE id = (SELECT id FROM event ORDER BY seq DESC LIMIT 1)",
        );
        $this->connection()->executeStatement('SET session_replication_role = DEFAULT');
        $this->logIn('dell');
        $page = $this->signed($day, ['until_now' => '1']);
        self::assertSelectorTextContains(
            '#problem-seen',
            'Review the problems below, and confirm that you have seen them',
        );
        self::assertStringContainsString('was altered', $page->filter('main form')->text());
        $this->client->submit($page->selectButton('Sign the day')->form([
            'seen' => '1',
            'password' => 'oak-and-patience',
        ]));
        self::assertStringContainsString('Signed although records did not match:', $this->sheet($day));
    }

    public function testTheSheetCountsAndMarksWhatWasLateReplacedOrTakenInFromAFile(): void
    {
        $day = $this->day(0);
        $this->logIn('ike');
        $before = $this->client->request('GET', '/days/'.$day)->filter('main')->text();
        $counted = '/(\d+) entries on this day: (\d+) late, (\d+) corrected, (\d+) imported/';
        self::assertMatchesRegularExpression($counted, $before);
        preg_match($counted, $before, $of);
        [, $entries, $late, $replaced] = array_map(intval(...), $of) + [0, 0, 0, 0];
        $this->keep('7.2 157 -65 because the card lay in the truck');
        $id = $this->words(
            'SELECT e.id FROM event e JOIN batch b ON b.id = e.batch_id WHERE b.tag = 7 ORDER BY e.seq DESC LIMIT 1',
        );
        $page = $this->client->request('GET', $this->path(7)."/events/$id");
        $this->client->submit($page->selectButton('Save correction')->form(['reason' => 'read wrong']));
        $after = $this->sheet($day);
        self::assertStringContainsString(
            \sprintf('%d entries on this day: %d late, %d corrected', $entries + 2, $late + 2, $replaced + 1),
            $after,
        );
        self::assertMatchesRegularExpression(
            '/late, corrected: 12:55 .*157 °F.* corrected 14:00 by MR: .*read wrong/',
            $after,
        );
    }

    /** @param array<string, string> $more */
    private function signed(string $day, array $more): Crawler
    {
        $page = $this->client->request('GET', '/days/'.$day);
        $fields = ['password' => 'oak-and-patience'] + $more;
        $names = $page
            ->filter('input[name^=reason]')
            ->each(static fn (Crawler $one): string => (string) $one->attr('name'));
        foreach ($names as $name) {
            $fields[$name] = 'seen';
        }

        return $this->client->submit($page->selectButton('Sign the day')->form($fields));
    }

    private function sheet(string $day): string
    {
        return $this->client->request('GET', '/days/'.$day)->filter('main')->text();
    }

    #[DataProvider('noDays')]
    public function testADayThatIsNoneOrLiesAheadIsNotThere(string $path): void
    {
        $this->logIn();
        $this->client->request('GET', $path);
        self::assertResponseStatusCodeSame(404);
    }

    /** @return iterable<array{string}> */
    public static function noDays(): iterable
    {
        yield ['/days/2026-02-30'];
        yield ['/days/2126-01-01'];
        yield ['/days/yesterday'];
    }

    public function testOnlyAManagerSigns(): void
    {
        $day = $this->day(0);
        foreach (['mara', 'wynn'] as $login) {
            $this->logIn($login);
            self::assertSelectorNotExists(
                'input[type=password]',
                $this->client
                    ->request('GET', '/days/'.$day)
                    ->filter('title')
                    ->text(),
            );
            $this->client->request('POST', '/days/'.$day, ['password' => 'oak-and-patience']);
            self::assertResponseStatusCodeSame(403);
        }
    }

    /** @param list<string> $found */
    #[DataProvider('searches')]
    public function testFindsByWhatPeopleRemember(string $words, array $found): void
    {
        $this->logIn('wynn');
        $page = $this->client
            ->request('GET', '/find', ['words' => $words])
            ->filter('main')
            ->text();
        foreach ($found as $one) {
            self::assertStringContainsString($one, $page);
        }
        if ($found === []) {
            self::assertStringContainsString('No results for "', $page);
        }
    }

    /** @return iterable<array{string, list<string>}> */
    public static function searches(): iterable
    {
        yield ['18', ['18 · Pork loin']];
        yield ['pork', ['18 · Pork loin', '11 · Pork ribs', '261 · Pork butt', 'RR-4471']];
        yield ['RR-44', ['18 · Pork loin', 'RR-4471']];
        yield ['ridge road', ['18 · Pork loin', 'Ridge Road Provisions']];
        yield ['-26-A', ['261 · Pork butt']];
        yield ['Rook', ['18 · Pork loin']];
        yield ['Ike', ['7 · Lamb shoulder', '9 · House sausage']];
        yield ['mr', ['18 · Pork loin']];
        yield ['no such thing', []];
        yield ['100%', []];
        yield ["'; DROP TABLE batch; --", []];
    }

    public function testARecallSaysWhatWasDiscardedOrRefusedOfALot(): void
    {
        $by = $this->logIn();
        $page = fn (string $number): string => $this->client
            ->request('GET', '/recall/lot/'.$this->words("SELECT id::text FROM lot WHERE number = '$number'"))
            ->filter('main dl')
            ->text();
        $refused = $page('NF-903');
        self::assertStringContainsString('Decision refused', $refused);
        self::assertStringNotContainsString('Found', $refused, 'what went back with the driver is not here');
        $lot = $this->words("SELECT id::text FROM lot WHERE number = 'RR-4471'");
        $now = $this->service(Now::class)->instant();
        $this->service(SiteLog::class)->add(
            Uuid::v7(),
            'lot',
            Uuid::fromString($lot),
            $by,
            $now,
            'discard',
            ['pieces' => 1, 'grams' => 2000],
        );
        $discarded = $page('RR-4471');
        self::assertStringContainsString('Discarded 1 piece, 2 kg', $discarded);
        self::assertStringContainsString('Found 6.1 kg of 6.1 kg', $discarded);
    }

    public function testARecallFollowsALotToEveryPortion(): void
    {
        $this->logIn();
        $lot = $this->words("SELECT id::text FROM lot WHERE number = 'RR-4471'");
        $path = $this->path(18);
        $page = $this->client->request('GET', $path.'/divide');
        $this->client->submit(
            $page
                ->selectButton('Divide batch')
                ->form([
                    'total' => '3.5',
                    'left' => '1',
                    'grams0' => '1.5',
                    'container0' => 'pan',
                    'grams1' => '1',
                    'container1' => 'pack',
                ]),
        );
        self::assertResponseStatusCodeSame(303);
        $this->keep('181 discard recalled');
        $page = $this->client->request('GET', '/recall/lot/'.$lot);
        self::assertSame(
            ['18', '181', '182'],
            $page->filter('tbody a')->each(static fn (Crawler $one): string => $one->text()),
        );
        self::assertStringContainsString('Discarded', $page->filter('tr:contains("181")')->text());
        self::assertStringContainsString('1.5 kg', $page->filter('tr:contains("181")')->text());
        self::assertStringContainsString('here: cabinet', $page->filter('tr:contains("18")')->first()->text());

        $text = $page->filter('main')->text();
        foreach (
            [
                'Supplier Ridge Road Provisions',
                'Received Mon 23 Nov 2026 11:00, 3 pieces, 6.1 kg',
                'Used 2 pieces, 4.07 kg, in one batch',
                'Not used yet 1 piece, 2.03 kg, walk-in',
                'Found 6.1 kg of 6.1 kg',
            ] as $told
        ) {
            self::assertStringContainsString($told, $text);
        }
        self::assertStringNotContainsString('Not accounted for', $text);
        self::assertStringContainsString('2 still here, 1 served, discarded or finished', $text);
        // What was put together with something else is followed there; what was taken back is where it was.
        $event =
            'INSERT INTO event (id, batch_id, at, recorded_at, account_id, initials, type, members, replaces, reason) '
.'SELECT gen_random_uuid(), b.id, now(), now(), b.begun_by_id, \'MR\', ';
        $this->connection()->executeStatement(
            $event
                ."'close', jsonb_build_object('step', 'mixed', 'mixed_into', (SELECT code FROM batch WHERE tag = 21)), "
.'NULL, NULL FROM batch b WHERE b.tag = 182',
        );
        $this->connection()->executeStatement(
            $event
                ."'void', '{}', e.id, 'the wrong pan' "
."FROM event e JOIN batch b ON b.id = e.batch_id WHERE b.tag = 181 AND e.type = 'discard'",
        );
        $this->service(Projections::class)->rebuild();
        $page = $this->client->request('GET', '/recall/lot/'.$lot);
        self::assertSame(
            ['18', '181', '182', '21'],
            $page->filter('tbody a')->each(static fn (Crawler $one): string => $one->text()),
        );
        self::assertStringContainsString('here: cabinet', $page->filter('tr:contains("181")')->text());
        self::assertStringContainsString('Finished', $page->filter('tbody tr')->eq(2)->text());
        self::assertStringContainsString('Beef cheek', $page->filter('tr:contains("21")')->last()->text());

        $thermometer = $this->words("SELECT id::text FROM thermometer WHERE label = 'T2'");
        self::assertSame(
            ['16'],
            $this->client
                ->request('GET', '/recall/thermometer/'.$thermometer)
                ->filter('tbody a')
                ->each(static fn (Crawler $one): string => $one->text()),
        );
        $page = $this->client->request('GET', '/recall/thermometer/'.$thermometer, ['since' => '2100-01-01']);
        self::assertStringContainsString('Everything since Fri 1 Jan 2100', $page->filter('main')->text());
        self::assertCount(0, $page->filter('tbody a'));
        $recipe = $this->words("SELECT id::text FROM recipe WHERE name = 'Orchard brine'");
        self::assertSame(
            ['5'],
            $this->client
                ->request('GET', '/recall/recipe/'.$recipe)
                ->filter('tbody a')
                ->each(static fn (Crawler $one): string => $one->text()),
        );
        $this->client->request('GET', '/recall/lot/'.$recipe);
        self::assertResponseStatusCodeSame(404);
    }

    /** A lane nobody looked at since its limit passed: what is shown of it is made anew first. */
    #[DataProvider('pagesOutOfLanes')]
    public function testNoVerdictOutlivesItsLimit(string $path): void
    {
        $this->logIn('wynn');
        $lot = $this->words("SELECT id::text FROM lot WHERE number = 'RR-4471'");
        $of18 = '(SELECT id FROM batch WHERE tag = 18)';
        $this->connection()->executeStatement(
            "UPDATE batch_report SET verdict = 'met', place = 'nowhere' WHERE batch_id = $of18",
        );
        $this->connection()->executeStatement("DELETE FROM deviation WHERE batch_id = $of18");
        $turned =
            "UPDATE projection_state SET next_turn = '"
            .TestKitchen::MOMENT
            ."'::timestamptz - interval '1 minute' WHERE batch_id = $of18";
        self::assertSame(1, $this->connection()->executeStatement($turned));
        $page = $this->client->request('GET', str_replace('{lot}', $lot, $path))->filter('main')->text();
        self::assertStringContainsString('Pork loin', $page);
        self::assertSame('broken', $this->words("SELECT verdict FROM batch_report WHERE batch_id = $of18"));
        self::assertStringNotContainsString('nowhere', $page);
    }

    /** @return list<array{string}> */
    public static function pagesOutOfLanes(): array
    {
        return [['/find?words=18'], ['/recall/lot/{lot}'], ['/trends'], ['/trends/by_rule?name=cook']];
    }

    private function day(int $offset): string
    {
        $site = $this->logIn()->site;

        return LocalDate::ofInstant(
            Instant::ofEpoch($this->number('SELECT extract(epoch FROM max(recorded_at))::int FROM event')),
            $site->zone(),
        )
            ->plusDays($offset)
            ->iso();
    }

    private function pagesOf(string $day, int $back): string
    {
        $date = LocalDate::ofIso($day);
        self::assertNotNull($date);
        $text = '';
        for ($offset = 0; $offset >= $back; --$offset) {
            $text .= $this->client
                ->request('GET', '/days/'.$date->plusDays($offset)->iso())
                ->filter('main')
                ->text();
        }

        return $text;
    }
}
