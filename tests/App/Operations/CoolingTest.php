<?php

declare(strict_types=1);

namespace Verjuicer\Tests\App\Operations;

use Verjuicer\Tests\App\KitchenTestCase;

/** How deep food may be to cool in time, and a cooling that goes on elsewhere. */
final class CoolingTest extends KitchenTestCase
{
    public function testSaysTheChanceTheDeepestLayerAndATable(): void
    {
        $this->logIn('ike');
        $page = $this->client->request('GET', '/cooling');
        self::assertStringContainsString('within 2 h and 6 h', $page->text());
        $rows = $page->filter('tbody tr');
        self::assertCount(5, $rows);
        self::assertStringContainsString('do not use', $rows->reduce(
            static fn ($row): bool => str_contains($row->text(), 'counter'),
        )->text());
        $asked = ['method' => 'blast_chiller', 'depth' => '2'];
        $page = $this->client->submit($page->selectButton('Make forecast')->form(), $asked);
        self::assertStringContainsString('almost certain, over 9 in 10', $page->filter('[aria-live]')->text());
        self::assertMatchesRegularExpression('/9 in 10 chance: \d/', $page->filter('[aria-live]')->text());
        $asked = ['method' => 'walk_in', 'depth' => '9'];
        $page = $this->client->submit($page->selectButton('Make forecast')->form(), $asked);
        self::assertStringContainsString('unlikely, under 1 in 10', $page->filter('[aria-live]')->text());
        $this->client->submit($page->selectButton('Make forecast')->form(), ['depth' => '-3']);
        self::assertResponseStatusCodeSame(422);
        self::assertSelectorExists('#problem-depth');
    }

    public function testTheSurestWayIsRecordedWithThePrimaryButton(): void
    {
        $this->logIn('ike');
        $page = $this->client->request('GET', $this->path(12));
        self::assertStringContainsString('Do this now: ', $page->filter('[data-advice]')->text());
        $record = $page->filter('#how-long .key-main');
        self::assertCount(1, $record);
        self::assertCount(
            1,
            $page->filter('.next-keys .key-likely, .next-keys .key-main, #how-long .key-main'),
            'one page, one advice',
        );
        $place = (string) preg_replace('~^cool/holding/~', '', (string) $record->attr('value'));
        $this->client->submit($record->form());
        self::assertResponseRedirects();
        $recorded = $this->words(
            "SELECT members->>'holding' FROM event WHERE type = 'cool' ORDER BY recorded_at DESC, id DESC LIMIT 1",
        );
        self::assertSame($place, $recorded);
    }

    public function testAMoveWhileCoolingIsOneTapAndItsClockGoesOn(): void
    {
        $this->logIn('ike');
        $page = $this->client->request('GET', $this->path(12));
        preg_match('/must reach 70 °F \(([\d:]+)/', $page->filter('main')->text(), $limit);
        $tap = $page->filter('.next-keys button[value="cool/holding/blast_chiller"]');
        self::assertSame('Record: in blast chiller', $tap->text());
        $this->client->submit($tap->form());
        self::assertResponseRedirects();
        $page = $this->client->request('GET', $this->path(12))->filter('main')->text();
        self::assertStringContainsString('must reach 70 °F ('.($limit[1] ?? 'no limit'), $page);
        $recorded = $this->words(
            "SELECT members->>'holding' FROM event WHERE type = 'cool' ORDER BY recorded_at DESC, id DESC LIMIT 1",
        );
        self::assertSame('blast_chiller', $recorded);
    }
}
