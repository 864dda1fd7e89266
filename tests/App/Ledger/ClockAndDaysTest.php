<?php

declare(strict_types=1);

namespace Verjuicer\Tests\App\Ledger;

use PHPUnit\Framework\Attributes\DataProvider;
use Psr\Log\NullLogger;
use Symfony\Component\Console\Tester\CommandTester;
use Symfony\Component\Filesystem\Filesystem;
use Symfony\Component\Mailer\Envelope;
use Symfony\Component\Mailer\Exception\TransportException;
use Symfony\Component\Mailer\MailerInterface;
use Symfony\Component\Mime\Email;
use Symfony\Component\Mime\RawMessage;
use Symfony\Contracts\Translation\TranslatorInterface;
use Verjuicer\App\EntryPoint\Console\VerifyCommand;
use Verjuicer\App\EntryPoint\Demo\DemoCommand;
use Verjuicer\App\Ledger\Chain\ChainVerifier;
use Verjuicer\App\Ledger\Chain\RecordingClock;
use Verjuicer\App\Ledger\Chain\SealLog;
use Verjuicer\App\Ledger\Chain\SealPublisher;
use Verjuicer\App\Ledger\Chain\SiteChain;
use Verjuicer\App\Ledger\Chain\SiteDays;
use Verjuicer\App\Ledger\Chain\SiteKeys;
use Verjuicer\App\Operations\Alarm\AlarmWatch;
use Verjuicer\App\Platform\Now;
use Verjuicer\App\Site\Site\Site;
use Verjuicer\Core\Measure\Instant;
use Verjuicer\Core\Measure\LocalDate;
use Verjuicer\Core\Measure\Span;
use Verjuicer\Tests\App\KitchenTestCase;

/** One wrong clock freezes nothing: it records nothing, or its day has a range more; and what days came to leaves. */
final class ClockAndDaysTest extends KitchenTestCase
{
    private string $folder = '';

    protected function setUp(): void
    {
        $this->folder = sys_get_temp_dir().'/verjuicer-elsewhere-'.bin2hex(random_bytes(6));
        $_SERVER['VERJUICER_SEALS_TO'] = $_ENV['VERJUICER_SEALS_TO'] = $this->folder;
        parent::setUp();
    }

    protected function tearDown(): void
    {
        parent::tearDown();
        $_SERVER['VERJUICER_SEALS_TO'] = $_ENV['VERJUICER_SEALS_TO'] = '';
        (new Filesystem())->remove($this->folder);
    }

    #[DataProvider('clocks')]
    public function testAClockIsTrustedBetweenALittleBehindAndTwoWeeksAhead(int $seconds, bool $isTrusted): void
    {
        $last = Instant::ofEpoch(1_790_000_000);
        self::assertSame($isTrusted, RecordingClock::isTrusted($last, Instant::ofEpoch($last->epoch + $seconds)));
        self::assertTrue(RecordingClock::isTrusted(null, $last));
    }

    /** @return iterable<string, array{int, bool}> */
    public static function clocks(): iterable
    {
        yield 'as it was' => [0, true];
        yield 'put right by a time server' => [-120, true];
        yield 'behind' => [-121, false];
        yield 'a holiday later' => [14 * 86_400, true];
        yield 'far ahead' => [14 * 86_400 + 1, false];
    }

    public function testAClockThatCannotBeRightRecordsNothingUntilItIsOrAManagerSaysWhy(): void
    {
        $site = $this->logIn('ike')->site;
        $events = 'SELECT count(*) FROM event';
        $before = $this->number($events);
        self::mockTime('-1 hour');
        $page = $this->keep('7 173');
        self::assertResponseStatusCodeSame(503);
        self::assertStringContainsString('The clock of this machine says 2026-11-24 13:00', $page->text());
        self::assertSame('7 173', $page->filter('[name=line]')->attr('value'), 'nothing typed is lost');
        self::mockTime('+1 hour');
        $this->keep('7 173');
        self::assertSame($before + 1, $this->number($events), 'once it is right');
        self::mockTime('+200 days');
        $this->logIn('ike');
        $this->keep('7 174');
        self::assertSame($before + 1, $this->number($events));
        self::assertSelectorNotExists('[name=reason]', $this->client->request('GET', '/keeping')->text());
        $this->logIn('dell');
        $page = $this->client->request('GET', '/keeping');
        $page = $this->client->submit($page->selectButton('Confirm the clock')->form());
        self::assertResponseStatusCodeSame(422, $page->text());
        $this->client->submit($page->selectButton('Confirm the clock')->form(['reason' => 'closed for the winter']));
        self::assertStringContainsString('closed for the winter', $this->client->followRedirect()->text());
        self::assertSelectorNotExists('[action="/keeping/clock"]');
        $this->logIn('ike');
        $this->keep('7 174');
        self::assertSame($before + 2, $this->number($events));
        // It was wrong after all. Put right, it stands behind: a manager says why, and the day goes on.
        self::mockTime('-200 days');
        $this->trustTheClock();
        $this->logIn('ike');
        $this->keep('7 175');
        self::assertSame($before + 3, $this->number($events));
        $days = array_column(iterator_to_array($this->service(SiteDays::class)->ranges($site), false), 'day');
        self::assertSame(
            ['2026-11-24', '2027-06-12', '2026-11-24'],
            \array_slice($days, -3),
            'the day has a range more, and none is frozen',
        );
        $seal = $this->service(SiteDays::class)->seal($site, self::day('2026-11-24'));
        self::assertSame($this->service(SiteChain::class)->length($site), $seal?->position);
        self::assertNull($this->service(ChainVerifier::class)->firstBreak($site));
    }

    public function testAClockThatIsSetWhileTheMachineRunsShowsAtOnceAndJudgesNothing(): void
    {
        $ike = $this->logIn('ike');
        $proc = $this->folder.'/proc';
        $files = new Filesystem();
        $files->dumpFile($proc.'/sys/kernel/random/boot_id', "a7c0e0b2-5d0f-4b46-9f3e-3f8f6a1c2d4e\n");
        $files->dumpFile($proc.'/uptime', "86400.12 3000.00\n");
        $_SERVER['VERJUICER_PROC'] = $_ENV['VERJUICER_PROC'] = $proc;
        try {
            $this->keep('7 173');
            self::assertSelectorNotExists('[data-clock]', $this->client->request('GET', '/')->text());
            $lanes = fn (): string => $this->words(
                "SELECT string_agg(verdict || facts::text, '/' ORDER BY batch_id) FROM board_lane",
            );
            $before = $lanes();
            $events = $this->number('SELECT count(*) FROM event');
            // Twelve hours on the wall that the machine did not run.
            self::mockTime('+43230 seconds');
            $files->dumpFile($proc.'/uptime', "43200.12 3000.00\n");
            $this->logIn('ike');
            self::assertSelectorExists('[data-clock]', $this->client->request('GET', $this->path(7))->text());
            $board = $this->client->request('GET', '/');
            self::assertStringContainsString('was changed from 2026-11-24 14:00 to 2026-11-25 02:00', $board->text());
            self::assertStringContainsString('no alarm is raised', $board->filter('[data-clock]')->text());
            self::assertSame($before, $lanes(), 'nothing is judged by it');
            $this->keep('7 174');
            self::assertResponseStatusCodeSame(503);
            self::assertSame($events, $this->number('SELECT count(*) FROM event'));
            $this->client->request('GET', '/readyz');
            self::assertStringContainsString('"clock":false', (string) $this->client->getResponse()->getContent());
            // A manager says that it is right now: from here on it counts, and all is judged by it.
            $this->logIn('dell');
            $form = $this->client->request('GET', '/keeping')->selectButton('Confirm the clock')->form();
            $this->client->submit($form, ['reason' => 'it was set by hand, and had stood']);
            self::assertResponseRedirects();
            $this->logIn('ike');
            self::assertSelectorNotExists('[data-clock]', $this->client->request('GET', '/')->text());
            self::assertNotSame($before, $lanes());
            $this->keep('7 174');
            self::assertSame($events + 1, $this->number('SELECT count(*) FROM event'));
            self::assertNull($this->service(ChainVerifier::class)->firstBreak($ike->site));
        } finally {
            $_SERVER['VERJUICER_PROC'] = $_ENV['VERJUICER_PROC'] = '';
        }
    }

    public function testADemoThatWasOffForWeeksGoesOnAndSaysSo(): void
    {
        $site = $this->logIn('ike')->site;
        self::mockTime('+30 days');
        $this->asOwner();
        $demo = new CommandTester($this->service(DemoCommand::class));
        self::assertSame(0, $demo->execute([]), 'once');
        $demo->execute([]);
        $clock = $this->service(RecordingClock::class);
        self::assertSame(['The demo is begun again.'], array_column($clock->words($site), 'reason'));
    }

    public function testOneWrongStampFreezesNoDay(): void
    {
        $site = $this->logIn('ike')->site;
        $days = $this->service(SiteDays::class);
        $yesterday = $days->seal($site, self::day('2026-11-23'));
        $this->connection()->executeStatement(
            "INSERT INTO event (id, batch_id, at, recorded_at, account_id, initials, type, members)
             SELECT gen_random_uuid(), batch_id, at, '2031-01-01', account_id, initials, type, members
             FROM event ORDER BY seq DESC LIMIT 1",
        );
        $this->trustTheClock();
        $this->keep('7 173');
        self::assertEquals($yesterday, $days->seal($site, self::day('2026-11-23')));
        self::assertSame('2026-11-24', $days->opened($site)?->iso());
        self::assertSame(
            $this->service(SiteChain::class)->length($site),
            $days->seal($site, self::day('2026-11-24'))?->position,
        );
        self::assertNull($this->service(ChainVerifier::class)->firstBreak($site));
    }

    public function testADayIsClosedWhenItIsOverAndWhatItCameToLeaves(): void
    {
        $site = $this->site('owner@example.org, office@example.org');
        $this->keep('7 173');
        $length = $this->service(SiteChain::class)->length($site);
        self::mockTime('+1 day');
        $this->service(AlarmWatch::class)->look($site);
        $seal = $this->service(SiteDays::class)->seal($site, self::day('2026-11-24'));
        self::assertGreaterThanOrEqual($length, $seal->position ?? 0);
        $mail = self::getMailerMessage(-1 + \count(self::getMailerMessages()));
        self::assertInstanceOf(Email::class, $mail);
        self::assertSame(['owner@example.org', 'office@example.org'], array_map(
            static fn ($to): string => $to->getAddress(),
            $mail->getTo(),
        ));
        self::assertStringContainsString("Entry $seal?->position: $seal?->digest", (string) $mail->getTextBody());
        $elsewhere = $this->service(SealPublisher::class)->elsewhere($site);
        self::assertSame($seal?->position, end($elsewhere)->position ?? 0);
        self::assertNull($this->service(SealLog::class)->firstBroken($site, $elsewhere));
        $sent = \count(self::getMailerMessages());
        $this->service(SealPublisher::class)->send($site);
        self::assertCount($sent, self::getMailerMessages(), 'each day once');
        self::assertCount(\count($elsewhere), $this->service(SealPublisher::class)->elsewhere($site));
    }

    public function testAWayThatFailsIsTriedAgainAndTheOtherGoesOn(): void
    {
        $site = $this->site('owner@example.org');
        self::mockTime('+1 day');
        $this->keep('7 173');
        $mailer = new class implements MailerInterface {
            public int $tried = 0;
            public bool $isThere = false;

            public function send(RawMessage $message, ?Envelope $envelope = null): void
            {
                ++$this->tried;
                if (!$this->isThere) {
                    throw new TransportException('nobody answers');
                }
            }
        };
        $post = new SealPublisher(
            $this->connection(),
            $this->service(SealLog::class),
            $this->service(SiteKeys::class),
            $mailer,
            $this->service(TranslatorInterface::class),
            new Filesystem(),
            new NullLogger(),
            $this->service(Now::class),
            $this->folder,
            'seals@example.org',
        );
        $post->send($site);
        self::assertSame(1, $mailer->tried);
        $days = \count($post->elsewhere($site));
        self::assertGreaterThan(0, $days, 'the folder has them all the same');
        $post->send($site);
        self::assertSame(1, $mailer->tried, 'not at every look');
        self::mockTime('+601 seconds');
        $mailer->isThere = true;
        $post->send($site);
        self::assertSame(1 + $days, $mailer->tried, 'then every day that did not leave');
        self::mockTime('+601 seconds');
        $post->send($site);
        self::assertSame(1 + $days, $mailer->tried);
        self::assertCount($days, $post->elsewhere($site));
    }

    public function testWhoWaitedForTheOtherDoesNotCloseTheDayAgain(): void
    {
        $site = $this->logIn('ike')->site;
        $days = $this->service(SiteDays::class);
        $tomorrow = $this->service(Now::class)->instant()->plus(Span::ofHours(24));
        $ranges = \count(iterator_to_array($days->ranges($site), false));
        foreach (['2026-11-24', '2026-11-24'] as $seen) {
            $days->close($site, $tomorrow, $seen);
        }
        self::assertSame($ranges + 1, \count(iterator_to_array($days->ranges($site), false)));
    }

    public function testADayBeforeTheFirstHasNoSealAndOneWithNothingHasThatOfTheDayBefore(): void
    {
        $site = $this->logIn('ike')->site;
        $days = $this->service(SiteDays::class);
        self::assertNull($days->seal($site, self::day('2020-01-01')));
        self::assertSame(0, $days->before($site, self::day('2026-11-19')), 'the first range begins at the first link');
        self::mockTime('+3 days');
        $this->keep('7 173');
        $last = $days->seal($site, self::day('2026-11-24'));
        self::assertEquals($last, $days->seal($site, self::day('2026-11-25')), 'nobody recorded anything then');
        self::assertSame('2026-11-27', $days->opened($site)?->iso());
        self::assertSame($last->position ?? 0, $days->before($site, self::day('2026-11-27')));
        $ranges = iterator_to_array($days->ranges($site), false);
        $positions = array_column($ranges, 'position');
        $sorted = $positions;
        sort($sorted);
        self::assertSame($sorted, $positions, 'in this order');
        self::assertSame($positions, array_values(array_unique($positions)));
    }

    public function testWhatLeftFindsAChainThatWasCutWithAllThatWasKeptHere(): void
    {
        $site = $this->site('');
        $this->keep('7 173');
        self::mockTime('+1 day');
        $this->service(AlarmWatch::class)->look($site);
        $elsewhere = $this->service(SealPublisher::class)->elsewhere($site);
        $sealed = end($elsewhere)->position ?? 0;
        $this->asOwner();
        $verify = new CommandTester($this->service(VerifyCommand::class));
        self::assertSame(0, $verify->execute([]), $verify->getDisplay());
        $this->connection()->executeStatement('SET session_replication_role = replica');
        $this->connection()->executeStatement('DELETE FROM day_close WHERE last_position = ?', [$sealed]);
        $this->connection()->executeStatement('DELETE FROM chain_link WHERE position >= ?', [$sealed]);
        $this->connection()->executeStatement('SET session_replication_role = DEFAULT');
        $keys = $this->service(SiteKeys::class);
        (new Filesystem())->remove([$keys->path($site, '.seals'), $keys->path($site, '.head')]);
        self::assertSame(1, $verify->execute([]));
        self::assertStringContainsString('that was sent to another place', $verify->getDisplay());
        // The same by a file that came by mail.
        $file = $this->folder.'/'.$site->id->toRfc4122().'.seals';
        rename($file, "$file.mail");
        self::assertSame(1, $verify->execute(['--seals' => ["$file.mail"]]));
        self::assertStringContainsString('Entries were removed or replaced', $verify->getDisplay());
        self::assertSame(2, $verify->execute(['--seals' => [__FILE__]]), 'no seals are in that file');
    }

    private function site(string $mail): Site
    {
        $site = $this->logIn('ike')->site;
        $site->sealMail = $mail;

        return $site;
    }

    private static function day(string $day): LocalDate
    {
        return LocalDate::ofIso($day) ?? throw new \LogicException();
    }
}
