<?php

declare(strict_types=1);

namespace Verjuicer\Tests\App\Site;

use Doctrine\ORM\EntityManagerInterface;
use PHPUnit\Framework\Attributes\DataProvider;
use Verjuicer\App\Ledger\Assessment\Assessments;
use Verjuicer\App\Ledger\Chain\ChainVerifier;
use Verjuicer\App\Ledger\Log\StoredRecords;
use Verjuicer\Tests\App\KitchenTestCase;

final class SettingsTest extends KitchenTestCase
{
    public function testAChangeIsKeptWithWhatWasBeforeAndIsInTheChain(): void
    {
        $by = $this->logIn('dell');
        $this->change(['address' => '4 Quarry Lane', 'permit' => 'P-77', 'reason' => 'the permit came']);
        $changes = $this->client->followRedirect()->filter('section:contains("History") tbody tr')->text();
        self::assertStringContainsString('Address nothing → 4 Quarry Lane', $changes);
        self::assertStringContainsString('the permit came', $changes);
        self::assertNull($this->service(ChainVerifier::class)->firstBreak($by->site));
        self::assertSame(
            1,
            $this->number("SELECT count(*) FROM chain_link WHERE kind = 'site_change'"),
            'it is linked like all that is recorded',
        );
        $this->change([]);
        self::assertSame(1, $this->number('SELECT count(*) FROM site_change'), 'nothing changed is nothing recorded');
    }

    public function testABatchIsJudgedByWhatWasInForceWhenItWasBegun(): void
    {
        $before = $this->service(StoredRecords::class)->of($this->batch(21));
        $this->logIn('dell');
        $this->change([
            'elevation_m' => '12',
            'timezone' => 'America/New_York',
            'hot_hold_check_seconds' => '30',
            'reason' => 'we move down to the river',
        ]);
        $after = $this->service(StoredRecords::class)->of($this->batch(21));
        self::assertSame(1610, $after->site->elevationM);
        self::assertSame($before->site->zone->name, $after->site->zone->name);
        self::assertTrue($after->site->house->isNone());
        $this->logIn('mara');
        $page = $this->client->request('GET', '/batches/new');
        $product = (string) $page->filter('option:contains("Lamb leg")')->attr('value');
        $this->client->submit($page->selectButton('Start batch')->form(['tag' => '88', 'product' => $product]));
        $new = $this->service(StoredRecords::class)->of($this->batch(88));
        self::assertSame(12, $new->site->elevationM);
        self::assertSame('America/New_York', $new->site->zone->name);
        self::assertSame(['hot_hold_check_seconds' => 1800], $new->site->house->seconds);
        self::assertSame(
            1800,
            $this->service(Assessments::class)->of($this->batch(88))->rules->house()->hotHoldCheck->seconds,
        );
    }

    public function testTheSameAgainIsNoChangeInWhateverOrderTheDatabaseKeepsIt(): void
    {
        $this->logIn('dell');
        $limits = ['come_up_non_intact_seconds' => '90', 'come_up_intact_seconds' => '90', 'prep_out_seconds' => '20'];
        $this->change($limits + ['reason' => 'we are careful']);
        $this->service(EntityManagerInterface::class)->clear();
        $this->logIn('dell');
        $this->change([]);
        self::assertResponseRedirects('/site');
        self::assertSame(1, $this->number('SELECT count(*) FROM site_change'));
    }

    /** @param array<string, string> $typed */
    #[DataProvider('refused')]
    public function testWhatCannotBeIsRefusedAndNothingTypedIsLost(array $typed, string $field, string $said): void
    {
        $this->logIn('dell');
        $page = $this->change($typed + ['address' => 'typed', 'reason' => 'why not']);
        self::assertResponseStatusCodeSame(422);
        self::assertStringContainsString($said, $page->filter("#problem-$field")->text());
        self::assertSame('typed', $page->filter('[name=address]')->attr('value'));
        self::assertSame(0, $this->number('SELECT count(*) FROM site_change'));
    }

    /** @return iterable<string, array{array<string, string>, string, string}> */
    public static function refused(): iterable
    {
        yield 'no reason' => [['reason' => ''], 'reason', 'Fill in this field'];
        yield 'no such zone' => [['timezone' => 'Mars/Base'], 'timezone', 'is not a known time zone'];
        yield 'a mountain too high' => [['elevation_m' => '9000'], 'elevation_m', 'from -430 m to 5,500 m'];
        yield 'looser than our default' => [['prep_out_seconds' => '90'], 'prep_out_seconds', 'from 1 to 60'];
        yield 'no name' => [['name' => ' '], 'name', 'Fill in this field'];
        yield 'no hour' => [['opens_at' => '25:00'], 'opens_at', '06:00'];
        yield 'adopted in the past' => [
            ['rules_from' => '2020-01-01'],
            'rules_from',
            'An edition cannot start on a day in the past',
        ];
    }

    public function testPoundsAndAClockOfTwelveHoursAreEverywhere(): void
    {
        $this->logIn('dell');
        self::assertStringContainsString(' kg', $this->client->request('GET', $this->path(7))->text());
        $this->logIn('dell');
        $this->change(['weight_unit' => 'lb', 'clock' => '12', 'reason' => 'as the crew is used to']);
        $this->logIn('mara');
        $page = $this->client->request('GET', $this->path(7))->filter('main')->text();
        self::assertStringContainsString(' lb', $page);
        self::assertDoesNotMatchRegularExpression('/\d kg\b/', $page);
        self::assertMatchesRegularExpression('/\b1?\d:\d\d [ap]m\b/', $page);
        self::assertStringContainsString('1:54 pm', $page);
        self::assertStringNotContainsString('13:54', $page);
        $this->keep('7 165 6:05 am because the card lay at the pit', isSure: true);
        self::assertResponseRedirects();
        self::assertSame(
            'lb',
            $this->client->request('GET', '/batches/new')->filter('[name=weight_unit]')->attr('value'),
        );
    }

    public function testASystemOfUnitsSetsEachPartAndEachCanBeChanged(): void
    {
        $site = $this->logIn('dell')->site->id->toRfc4122();
        $set = fn (): array|false => $this->connection()->fetchNumeric(
            'SELECT unit, weight_unit, length_unit, clock, elevation_m FROM site WHERE id = ?',
            [$site],
        );
        $this->change(['units' => 'us', 'reason' => 'as the crew reads']);
        self::assertSame(['F', 'lb', 'in', '12', 1610], $set());
        $page = $this->client->request('GET', '/site');
        self::assertSame('us', $page->filter('[name=units] [selected]')->attr('value'));
        self::assertSame('5,280 ft', $page->filter('[name=elevation_m]')->attr('value'));
        $this->change(['clock' => '24', 'reason' => 'the wall clock']);
        self::assertSame(['F', 'lb', 'in', '24', 1610], $set());
        $choices = $this->client->request('GET', '/site')->filter('[name=units] option');
        self::assertSame('', $choices->first()->attr('value'));
        self::assertCount(0, $choices->filter('[selected]'));
        $this->change(['units' => 'metric', 'elevation_m' => '5,300 ft', 'reason' => 'new scales']);
        self::assertSame(['C', 'kg', 'cm', '24', 1615], $set());
    }

    /** @param array<string, string> $typed */
    private function change(array $typed): \Symfony\Component\DomCrawler\Crawler
    {
        return $this->client->submit($this->client->request('GET', '/site')->selectButton('Save')->form(), $typed);
    }
}
