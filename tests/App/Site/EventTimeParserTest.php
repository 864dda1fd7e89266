<?php

declare(strict_types=1);

namespace Verjuicer\Tests\App\Site;

use PHPUnit\Framework\Attributes\DataProvider;
use Verjuicer\App\Site\Site\EventTimeParser;
use Verjuicer\App\Site\Site\InvalidEventTime;
use Verjuicer\Core\Measure\Instant;
use Verjuicer\Tests\App\KitchenTestCase;

/** One way to say when something happened, wherever it is said. It is 14:00 on the wall, 24 November, in Denver. */
final class EventTimeParserTest extends KitchenTestCase
{
    #[DataProvider('times')]
    public function testIsReadAsPeopleSayIt(string $given, string $instant): void
    {
        self::assertSame(
            $instant,
            $this->service(EventTimeParser::class)->read($given, $this->logIn()->site)->rfc3339(),
        );
    }

    /** @return iterable<array{string, string}> */
    public static function times(): iterable
    {
        yield ['now', '2026-11-24T21:00:00Z'];
        yield [' NOW ', '2026-11-24T21:00:00Z'];
        yield ['0', '2026-11-24T21:00:00Z'];
        yield ['10', '2026-11-24T20:50:00Z'];
        yield ['-10', '2026-11-24T20:50:00Z'];
        yield ['−10', '2026-11-24T20:50:00Z'];
        yield ['10 min', '2026-11-24T20:50:00Z'];
        yield ['90', '2026-11-24T19:30:00Z'];
        yield ['1 h 30', '2026-11-24T19:30:00Z'];
        yield ['1h30', '2026-11-24T19:30:00Z'];
        yield ['1:05 pm', '2026-11-24T20:05:00Z'];
        yield ['1:05PM', '2026-11-24T20:05:00Z'];
        yield ['11 a.m.', '2026-11-24T18:00:00Z'];
        yield ['12:10 am', '2026-11-24T07:10:00Z'];
        yield ['12:10 pm', '2026-11-24T19:10:00Z'];
        yield ['yesterday 10:10 pm', '2026-11-24T05:10:00Z'];
        yield ['1 h 30 min', '2026-11-24T19:30:00Z'];
        yield ['36 h', '2026-11-23T09:00:00Z'];
        yield ['13:05', '2026-11-24T20:05:00Z'];
        yield ['13.05', '2026-11-24T20:05:00Z'];
        yield ['9:30', '2026-11-24T16:30:00Z'];
        yield ['14:00', '2026-11-24T21:00:00Z'];
        yield ['yesterday 22:10', '2026-11-24T05:10:00Z'];
        yield ['2026-11-20 08:00', '2026-11-20T15:00:00Z'];
        yield ['2026-11-20T08:00:30', '2026-11-20T15:00:30Z'];
        yield ['2026-07-04 08:00', '2026-07-04T14:00:00Z'];
        yield ['2016-12-01 08:00', '2016-12-01T15:00:00Z'];
    }

    /** On the night of 1 November 2026 the clocks went back, and 1:30 came twice. */
    public function testWhatIsToldIsReadBackToTheSecondNearWhereItWas(): void
    {
        $site = $this->logIn()->site;
        $happened = $this->service(EventTimeParser::class);
        foreach (['2026-11-01T07:30:05Z', '2026-11-01T08:30:05Z'] as $one) {
            $at = Instant::parse($one);
            self::assertSame('2026-11-01 01:30:05', $happened->told($at, $site));
            self::assertSame($one, $happened->read('2026-11-01 01:30:05', $site, $at)->rfc3339());
        }
        self::assertSame('2026-11-01T08:30:05Z', $happened->read('2026-11-01 01:30:05', $site)->rfc3339(), 'or to now');
    }

    #[DataProvider('others')]
    public function testIsRefusedWithWhatToDoAndNeverBent(string $given, string $key): void
    {
        try {
            $this->service(EventTimeParser::class)->read($given, $this->logIn()->site);
            self::fail('it was read');
        } catch (InvalidEventTime $problem) {
            self::assertSame('when.problem.'.$key, $problem->key);
            self::assertSame('when', $problem->field);
        }
    }

    /** @return iterable<array{string, string}> */
    public static function others(): iterable
    {
        yield ['', 'empty'];
        yield ['  ', 'empty'];
        yield ['soon', 'unreadable'];
        yield ['ten', 'unreadable'];
        yield ['24:00', 'unreadable'];
        yield ['12:60', 'unreadable'];
        yield ['1 h 300', 'unreadable'];
        yield ['2026-02-30 10:00', 'unreadable'];
        yield ['2026-03-08 02:30', 'unreadable'];
        yield ["\xFF", 'unreadable'];
        yield ['14:01', 'ahead'];
        yield ['2026-11-25 09:00', 'ahead'];
        yield ['99999 h', 'unreadable'];
        yield ['2016-11-01 10:00', 'too_long_ago'];
    }

    /** Wherever something is entered it is said the same way, and an unreadable time keeps what was typed. */
    #[DataProvider('forms')]
    public function testIsAskedForWhereverSomethingIsEntered(string $path, string $form): void
    {
        $this->logIn();
        $path = (string) preg_replace_callback(
            '/\{(\w+):(.+?)\}/',
            fn (array $of): string => $of[1] === 'tag'
                ? $this->batch((int) $of[2])->id->toRfc4122()
                : $this->words(
                    "SELECT id::text FROM $of[1] WHERE "
                        .($of[1] === 'lot' ? 'number' : ($of[1] === 'pit' ? 'name' : 'label'))
                        ." = '$of[2]'",
                ),
            $path,
        );
        $form = $this->client->request('GET', $path)->filterXPath($form)->form();
        self::assertSame('now', $form->getValues()['when'] ?? null);
        $before = $this->number(
            'SELECT (SELECT count(*) FROM event) + (SELECT count(*) FROM site_event) + (SELECT count(*) '
            .'FROM thermometer_check)',
        );
        $slips = [
            'soon' => '" is not a time',
            '' => 'Enter when it happened: now, 10 for ten minutes ago, 1 h 30, 14:05, or yesterday 22:10',
            '14:01' => 'is in the future',
        ];
        foreach ($slips as $typed => $said) {
            $page = $this->client->submit($form, ['when' => $typed]);
            self::assertResponseStatusCodeSame(422);
            self::assertStringContainsString($said, $page->filter('main')->text());
            self::assertContains(
                $typed,
                $page->filter('[name=when]')->each(static fn ($one): ?string => $one->attr('value')),
            );
        }
        self::assertSame(
            $before,
            $this->number(
                'SELECT (SELECT count(*) FROM event) + (SELECT count(*) FROM site_event) + (SELECT count(*) '
                .'FROM thermometer_check)',
            ),
        );
    }

    /** @return iterable<string, array{string, string}> */
    public static function forms(): iterable
    {
        yield 'a step' => ['/batches/{tag:3}/steps', "//form[.//input[@name='type'][@value='cool']]"];
        yield 'an action' => ['/batches/{tag:18}', "//*[@id='actions']//form[.//input[@name='finding']]"];
        yield 'a new batch' => ['/batches/new', '//main//form'];
        yield 'a division' => ['/batches/{tag:21}/divide', '//main//form'];
        yield 'a round of one batch' => ['/batches/{tag:7}/check', '//main//form'];
        yield 'a round of all that is held hot' => ['/hot-round', "//form[@action='/hot-round']"];
        yield 'a pit' => ['/pits/{pit:Drum}', "//main//form[.//*[@name='when']]"];
        yield 'a thermometer' => ['/thermometers/{thermometer:T1}', "//main//form[.//*[@name='when']]"];
        yield 'a delivery' => ['/receiving/new', '//main//form'];
        yield 'a lot' => ['/lots/{lot:NF-881}', "//main//form[.//*[@name='when']]"];
    }
}
