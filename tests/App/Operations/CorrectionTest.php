<?php

declare(strict_types=1);

namespace Verjuicer\Tests\App\Operations;

use PHPUnit\Framework\Attributes\DataProvider;
use Symfony\Component\DomCrawler\Crawler;
use Verjuicer\App\Site\Site\WallTime;
use Verjuicer\Core\Measure\Instant;
use Verjuicer\Core\Measure\TimeZone;
use Verjuicer\Tests\App\KitchenTestCase;

/** A wrong entry is put right by a further one; what was written down stays, struck, and the verdicts follow. */
final class CorrectionTest extends KitchenTestCase
{
    public function testACorrectionIsAFurtherEventAndTheVerdictFollows(): void
    {
        $path = $this->path(21);
        $page = $this->open($path, '146 °F');
        self::assertSame('146', $page->filter('[name=temp]')->attr('value'));
        $before = $this->number('SELECT count(*) FROM event');
        $form = $page->selectButton('Save correction')->form(['temp' => '126', 'reason' => 'misread the dial']);
        $this->client->submit($form);
        self::assertResponseRedirects($path);
        $this->client->submit($form);
        self::assertSame($before + 1, $this->number('SELECT count(*) FROM event'), 'a retry is kept once');
        $page = $this->client->followRedirect();
        self::assertStringContainsString('146 °F', $page->filter('s')->text());
        self::assertStringContainsString('misread the dial', $page->filter('#everything')->text());
        self::assertSelectorExists('[data-rule=hot_hold][data-verdict=broken]');
        $page = $this->client->request('GET', '/');
        $lane = $page->filter('[data-part=board] li:contains("Beef cheek"):not([data-due])');
        self::assertStringContainsString('126', $lane->text());
    }

    /** @param array<string, string> $typed */
    #[DataProvider('refusals')]
    public function testWhatCannotBeKeptComesBackWithWhatToDo(array $typed, string $said): void
    {
        $page = $this->open($this->path(7), '171 °F');
        $before = $this->number('SELECT count(*) FROM event');
        $page = $this->client->submit($page->selectButton('Save correction')->form($typed + ['reason' => 'slip']));
        self::assertResponseStatusCodeSame(422);
        self::assertStringContainsString($said, $page->filter('form[aria-labelledby=put-right]')->text());
        foreach ($typed as $name => $value) {
            self::assertSame($value, $page->filter("[name=$name]")->attr('value'));
        }
        self::assertSame($before, $this->number('SELECT count(*) FROM event'));
    }

    /** @return iterable<array{array<string, string>, string}> */
    public static function refusals(): iterable
    {
        yield [['temp' => 'warm'], 'Enter a temperature with at most one decimal, such as 38.5'];
        yield [['temp' => ''], 'Enter the temperature'];
        yield [['piece' => '9'], 'This batch has 1, 2, 3, 4'];
        yield [['piece' => 'two'], 'whole number'];
        yield [['when' => '2026-02-30 10:00'], 'not a time'];
        yield [['when' => '2100-01-01T10:00'], 'is in the future'];
        yield [
            ['when' => ''],
            'Enter when it happened: now, 10 for ten minutes ago, 1 h 30, 14:05, or yesterday 22:10',
        ];
        yield [['spot' => 'elbow'], '), and nothing else this line takes'];
        yield [['temp' => '1710'], 'Enter a temperature with at most one decimal, such as 38.5'];
        yield [['temp' => '400'], 'Yes, save it'];
        yield [['reason' => ''], 'Enter a reason for the correction'];
    }

    public function testABatchIsNotOpenedAgainBesideAnotherOfItsTag(): void
    {
        $path = '/batches/'.$this->words('SELECT id::text FROM batch WHERE tag = 11');
        $this->logIn();
        $form = $this->client->request('GET', '/batches/new');
        $this->client->submit(
            $form
                ->selectButton('Start batch')
                ->form([
                    'product' => (string) $form->filter('option:contains("Lamb leg")')->attr('value'),
                    'tag' => '11',
                ]),
        );
        self::assertResponseStatusCodeSame(303);
        $page = $this->open($path, 'Served');
        $this->client->submit($page->selectButton('Void entry')->form(['reason' => 'not yet']));
        self::assertResponseStatusCodeSame(409);
        self::assertSelectorTextContains('[role=alert]', 'tag is on another open batch');
    }

    public function testAnInspectorCorrectsNothing(): void
    {
        $page = $this->open($this->path(7), '171 °F');
        $address = $page->getUri();
        self::assertIsString($address);
        $this->logIn('wynn');
        $this->client->request('GET', $address);
        self::assertResponseStatusCodeSame(403);
        $this->client->request('GET', $this->path(7));
        $this->logIn('wynn');
        self::assertStringNotContainsString(
            'Correct',
            $this->client->request('GET', explode('/events', $address)[0])->filter('#everything')->text(),
        );
    }

    #[DataProvider('wallTimes')]
    public function testTheWallsTimeIsTakenAsTheKitchenReadsIt(string $given, ?string $near, ?string $instant): void
    {
        $zone = TimeZone::named('America/Denver');
        self::assertSame(
            $instant,
            WallTime::parse($given, $zone, Instant::parse($near ?? '2026-11-01T00:00:00Z'))?->rfc3339(),
        );
    }

    /** @return iterable<string, array{string, string|null, string|null}> */
    public static function wallTimes(): iterable
    {
        yield 'an ordinary day' => ['2026-11-24T14:32:05', null, '2026-11-24T21:32:05Z'];
        yield 'without seconds' => ['2026-11-24 14:32', null, '2026-11-24T21:32:00Z'];
        yield 'repeated, near the first' => ['2026-11-01T01:30', '2026-11-01T07:00:00Z', '2026-11-01T07:30:00Z'];
        yield 'repeated, near the second' => ['2026-11-01T01:30', '2026-11-01T09:00:00Z', '2026-11-01T08:30:00Z'];
        yield 'skipped' => ['2026-03-08T02:30', null, null];
        yield 'no such day' => ['2026-02-30T02:30', null, null];
        yield 'no such minute' => ['2026-02-20T02:61', null, null];
        yield 'no time at all' => ['soon', null, null];
    }

    private function open(string $path, string $entry): Crawler
    {
        $row = $this->client
            ->request('GET', $path)
            ->filter("#everything tr:contains('$entry')")
            ->first();

        return $this->client->click($row->selectLink('Correct')->link());
    }
}
