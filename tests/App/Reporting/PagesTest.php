<?php

declare(strict_types=1);

namespace Verjuicer\Tests\App\Reporting;

use PHPUnit\Framework\Attributes\DataProvider;
use Symfony\Component\DomCrawler\Crawler;
use Verjuicer\App\Platform\Paging\Page;
use Verjuicer\App\Platform\Paging\PageKey;
use Verjuicer\Tests\App\KitchenTestCase;

/** A list shows so many and then says that there are more; following on, everything is seen once. */
final class PagesTest extends KitchenTestCase
{
    /** 150 that ended as tag 18 stands. */
    private const UNSETTLED = <<<'SQL'
    WITH made AS (
        INSERT INTO batch SELECT (jsonb_populate_record(b, jsonb_build_object('id', gen_random_uuid(), 'code',
          'X-' || n))).*
        FROM batch b, generate_series(1, 150) n WHERE b.tag = 18 RETURNING id
    ), state AS (
        INSERT INTO projection_state (batch_id, site_id, head, made, shape)
        SELECT made.id, s.site_id, 1, 1, s.shape FROM made, projection_state s JOIN batch b ON b.id = s.batch_id
          WHERE b.tag = 18
    )
    INSERT INTO board_lane (batch_id, site_id, tag, ended_at, verdict, has_open_action, facts, version)
    SELECT made.id, l.site_id, l.tag, '2026-11-20T12:00:00Z', l.verdict, true, l.facts, l.version FROM made,
      board_lane l WHERE l.tag = 18
    SQL;

    #[DataProvider('lists')]
    public function testEverythingIsSeenOnce(string $path, string $item, string $more): void
    {
        $this->logIn('dell');
        $this->asOwner();
        $this->connection()->executeStatement('ALTER TABLE batch DISABLE TRIGGER ALL');
        $this->connection()->executeStatement($more);
        $seen = [];
        $pages = 0;
        $page = $this->client->request('GET', $path);
        do {
            ++$pages;
            self::assertResponseIsSuccessful();
            $shown = $page->filter($item)->each(static fn (Crawler $one): string => (string) $one->attr('href'));
            self::assertLessThanOrEqual(Page::ROWS, \count($shown));
            $seen = [...$seen, ...$shown];
            $next = $page->filter('a[rel=next]');
            $page = $next->count() > 0 ? $this->client->click($next->first()->link()) : $page;
        } while ($next->count() > 0 && $pages < 9);
        self::assertGreaterThan(2 * Page::ROWS, \count($seen));
        self::assertSame(\count($seen), \count(array_unique($seen)), 'each once');
        self::assertSame((int) ceil(\count($seen) / Page::ROWS), $pages);
    }

    /** @return iterable<string, array{string, string, string}> */
    public static function lists(): iterable
    {
        $batches = <<<'SQL'
        INSERT INTO batch SELECT (jsonb_populate_record(b, jsonb_build_object('id', gen_random_uuid(), 'code',
          'X-' || n, 'begun_at', b.begun_at - (n / 3) * interval '1 second'))).*
        FROM batch b, generate_series(1, 150) n WHERE b.tag = 18
        SQL;
        yield 'batches of a search' => ['/find?words=Pork+loin', 'a[href^="/batches/"].font-bold', $batches];
        yield 'the records behind a bar' => [
            '/trends/by_product?name=Pork+loin',
            'main ul a[href^="/batches/"]',
            "WITH made AS ($batches RETURNING id) INSERT INTO deviation SELECT id, 'cook', NULL, NULL FROM made",
        ];
        yield 'how long stages took' => [
            '/trends/took/cook',
            'main ul a[href^="/batches/"]',
            "WITH made AS ($batches RETURNING id, begun_at) INSERT INTO stage_report "
."SELECT id, 0, 'cook', begun_at, begun_at + interval '2 hours', NULL FROM made",
        ];
        yield 'lots' => [
            '/receiving',
            'div:last-of-type > table a[href^="/lots/"]',
            <<<'SQL'
            INSERT INTO lot SELECT (jsonb_populate_record(l, jsonb_build_object('id', gen_random_uuid(), 'number',
              'X-' || n, 'pieces', 1, 'is_accepted', false, 'recorded_at', '2026-11-24T21:00:00Z'))).*
            FROM lot l, generate_series(1, 150) n WHERE l.number = 'NF-903'
            SQL,
        ];
        yield 'what ended and is not settled' => ['/unsettled', '[data-ended] a[href^="/batches/"]', self::UNSETTLED];
        yield 'packets' => [
            '/packets',
            'main ul a[href^="/packets/"]',
            <<<'SQL'
            INSERT INTO packet (id, site_id, account_id, at, scope, paper)
            SELECT gen_random_uuid(), a.site_id, a.id,
              '2026-11-24T20:00:00Z'::timestamptz - (n / 5) * interval '1 minute',
              '{"from":"2026-11-01","to":"2026-11-02"}', 'A4'
            FROM account a, generate_series(1, 150) n WHERE a.initials = 'IT'
            SQL,
        ];
    }

    /** However many are not settled: the board names some and leads to the others. */
    public function testTheBoardStaysAsLongAsItIs(): void
    {
        $this->logIn();
        $before = $this->client->request('GET', '/')->filter('[data-due]')->count();
        $this->asOwner();
        $this->connection()->executeStatement('ALTER TABLE batch DISABLE TRIGGER ALL');
        $this->connection()->executeStatement(self::UNSETTLED);
        $this->connection()->executeStatement("UPDATE board_lane SET version = nextval('board_version')");
        $board = $this->client->request('GET', '/');
        self::assertSame(
            '138 more ended batches need a corrective action',
            trim($board->filter('a[href="/unsettled"]')->text()),
        );
        self::assertCount($before + 12, $board->filter('[data-due]'));
    }

    public function testAKeyIsWhatAPageGoesOnFrom(): void
    {
        $key = new PageKey(1_764_028_800, '01a21219-0000-7000-8000-000000000001');
        self::assertEquals($key, PageKey::parse((string) $key));
        foreach (['', '1764028800', "1~' OR 1=1", '1~01a21219-0000-7000-8000-000000000001x'] as $none) {
            self::assertNull(PageKey::parse($none));
        }
        $page = Page::of(range(1, Page::ROWS), static fn (int $one): PageKey => new PageKey($one, ''));
        self::assertNull($page->next);
        $page = Page::of(range(1, Page::ROWS + 1), static fn (int $one): PageKey => new PageKey($one, ''));
        self::assertSame([Page::ROWS, Page::ROWS.'~'], [\count($page->rows), $page->next]);
    }
}
