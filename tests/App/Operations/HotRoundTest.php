<?php

declare(strict_types=1);

namespace Verjuicer\Tests\App\Operations;

use Symfony\Component\DomCrawler\Crawler;
use Verjuicer\Tests\App\KitchenTestCase;

/** All that is held hot, in one pass: what is fine is saved, what is doubtful asks at its own field. */
final class HotRoundTest extends KitchenTestCase
{
    public function testOneDoubtfulReadingHoldsUpNoOther(): void
    {
        $this->logIn();
        $page = $this->client->request('GET', '/hot-round');
        $tags = $this->tags($page);
        self::assertGreaterThan(1, \count($tags));
        $doubtful = array_pop($tags);
        $before = $this->number("SELECT count(*) FROM event WHERE type = 'reading'");
        $sent = array_fill_keys(array_map(static fn (string $tag): string => 't'.$tag, $tags), '150');
        $page = $this->client->submit(
            $page->filter('form[action="/hot-round"]')->form(),
            $sent + ["t$doubtful" => '-30'],
        );
        self::assertResponseStatusCodeSame(422);
        $saved = $before + \count($tags);
        self::assertSame($saved, $this->number("SELECT count(*) FROM event WHERE type = 'reading'"));
        self::assertSelectorTextContains('main [role=status]', 'saved');
        self::assertSelectorExists("#problem-t$doubtful");
        self::assertSelectorExists("input[name=t$doubtful][value='-30'][autofocus]");
        self::assertSelectorExists("input[name=sure$doubtful]");
        $form = $page->filter('form[action="/hot-round"]')->form();
        $this->client->submit($form, ["sure$doubtful" => '1']);
        self::assertResponseRedirects('/hot-round');
        self::assertSame($saved + 1, $this->number("SELECT count(*) FROM event WHERE type = 'reading'"), 'each once');
    }

    public function testTheDueLineLeadsToTheCheckOfItsUnit(): void
    {
        $this->logIn('dell');
        $links = $this->client
            ->request('GET', '/')
            ->filter('a[href^="/hot-round?unit="]')
            ->each(static fn (Crawler $one): string => $one->attr('href') ?? '');
        self::assertNotSame([], $links);
        $this->client->request('GET', $links[0]);
        self::assertSelectorCount(1, 'form[action="/hot-round"] input[autofocus]');
    }

    /** @return list<string> */
    private function tags(Crawler $page): array
    {
        return $page
            ->filter('form[action="/hot-round"] input.field[name^=t]')
            ->reduce(static fn (Crawler $one): bool => preg_match('/^t\d+$/', $one->attr('name') ?? '') === 1)
            ->each(static fn (Crawler $one): string => substr($one->attr('name') ?? '', 1));
    }
}
