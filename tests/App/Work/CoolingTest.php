<?php

declare(strict_types=1);

namespace Verjuicer\Tests\App\Work;

use Verjuicer\Tests\App\KitchenTestCase;

/** The page that says how deep meat may lie. */
final class CoolingTest extends KitchenTestCase
{
    public function testSaysTheChanceTheDeepestLayerAndATable(): void
    {
        $this->logIn('ike');
        $page = $this->client->request('GET', '/cooling');
        self::assertStringContainsString('within 2 h and 6 h', $page->text());
        $rows = $page->filter('tbody tr');
        self::assertCount(5, $rows);
        self::assertStringContainsString('not this way', $rows->reduce(
            static fn ($row): bool => str_contains($row->text(), 'counter'),
        )->text());
        $asked = ['method' => 'blast_chiller', 'depth' => '2'];
        $page = $this->client->submit($page->selectButton('Work it out')->form(), $asked);
        self::assertStringContainsString('more than 9 in 10', $page->filter('[aria-live]')->text());
        self::assertMatchesRegularExpression('/this way: \d/', $page->filter('[aria-live]')->text());
        $asked = ['method' => 'walk_in', 'depth' => '9'];
        $page = $this->client->submit($page->selectButton('Work it out')->form(), $asked);
        self::assertStringContainsString('fewer than 1 in 10', $page->filter('[aria-live]')->text());
        $this->client->submit($page->selectButton('Work it out')->form(), ['depth' => '-3']);
        self::assertResponseStatusCodeSame(422);
        self::assertSelectorExists('#problem-depth');
    }
}
