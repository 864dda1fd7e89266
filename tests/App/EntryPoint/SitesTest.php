<?php

declare(strict_types=1);

namespace Verjuicer\Tests\App\EntryPoint;

use Symfony\Component\DomCrawler\Crawler;
use Verjuicer\Tests\App\KitchenTestCase;

/** Several sites of one organisation: opened by an owner, worked in by one tap, seen at once. */
final class SitesTest extends KitchenTestCase
{
    public function testAnOwnerOpensASiteWithACopyOfWhatIsCookedAndNothingElse(): void
    {
        $page = $this->open();
        self::assertStringContainsString('The site is added. You are in it now', $page->text());
        self::assertStringContainsString('Mill Bend', $page->filter('header')->text());
        self::assertStringNotContainsString('Lamb shoulder', $page->filter('main')->text(), 'no batches');
        $products = $this->client->request('GET', '/products')->text();
        self::assertStringContainsString('Duck', $products);
        $here = "(SELECT id FROM site WHERE name = 'Mill Bend')";
        self::assertSame(
            'Quarry Lane Smokehouse, C, lb, 12',
            $this->words(
                "SELECT concat_ws(', ', o.name, s.unit, s.weight_unit, s.clock) FROM site s
                 JOIN organisation o ON o.id = s.organisation_id WHERE s.id = $here",
            ),
        );
        self::assertSame('added', $this->words("SELECT what FROM account_change WHERE site_id = $here"));
        self::assertSame(0, $this->number("SELECT count(*) FROM recipe WHERE site_id = $here"));
        self::assertSame(0, $this->number("SELECT count(*) FROM pit WHERE site_id = $here"));
    }

    public function testEntriesBelongToTheSiteOneIsInAndOneTapChangesIt(): void
    {
        $this->open();
        $this->keep('7 171');
        self::assertResponseStatusCodeSame(422, 'there is no batch 7 here');
        $page = $this->client->request('GET', '/');
        $there = $page->filter('header form[action$="/enter"]');
        self::assertStringContainsString('Quarry Lane Smokehouse', $there->text());
        $this->client->submit($there->form());
        $page = $this->client->followRedirect();
        self::assertStringContainsString('Quarry Lane Smokehouse', $page->filter('header')->text());
        self::assertStringContainsString('Lamb shoulder', $page->filter('main')->text());
        $this->keep('7 171');
        self::assertResponseStatusCodeSame(303);
        $this->client->restart();
        $form = $this->client->request('GET', '/login')->selectButton('Log in')->form();
        $this->client->submit($form, ['_username' => 'ona', '_password' => 'oak-and-patience']);
        $header = $this->client->followRedirect()->filter('header');
        self::assertStringContainsString('Quarry Lane Smokehouse', $header->text(), 'where they were last');
    }

    public function testAnOwnerSeesHowAllSitesStand(): void
    {
        $this->open();
        $page = $this->client->request('GET', '/sites');
        $sections = $page->filter('main section');
        self::assertCount(2, $sections);
        $calm = $sections->reduce(static fn (Crawler $one): bool => str_contains($one->text(), 'Mill Bend'));
        self::assertStringContainsString('Nothing is due', $calm->text());
        self::assertStringContainsString('you are here', $calm->text());
        $busy = $sections->reduce(static fn (Crawler $one): bool => str_contains($one->text(), 'Go to Quarry Lane'));
        self::assertStringContainsString('record corrective action', $busy->text());
        self::assertStringContainsString('to sign', $busy->text());
        self::assertGreaterThan(4, $busy->filter('li')->count());
    }

    public function testSomebodyWorksInASecondSiteByTheSameLogin(): void
    {
        $this->open();
        $this->client->request('GET', '/');
        $this->client->submit($this->client->getCrawler()->filter('header form[action$="/enter"]')->form());
        $form = $this->client->request('GET', '/sites')->selectButton('Give access')->form();
        $this->client->submit($form, ['person' => $this->account('ike'), 'initials' => 'it', 'role' => 'pitmaster']);
        self::assertResponseRedirects('/sites');
        $this->client->submit($form, ['person' => $this->account('mara'), 'initials' => 'IT', 'role' => 'crew']);
        self::assertSelectorTextContains('#problem-initials', 'taken');

        $this->client->restart();
        $this->logIn('ike');
        $page = $this->client->request('GET', '/');
        self::assertSame([], $page->filter('header a[href="/people"]')->extract(['href']));
        $this->client->submit($page->filter('header form[action$="/enter"]')->form());
        self::assertStringContainsString('Mill Bend', $this->client->followRedirect()->filter('header')->text());
        $this->client->request('GET', '/products/new');
        self::assertResponseIsSuccessful('a pitmaster there');

        // Whoever only manages one of the sites takes no password of somebody who works in another.
        $this->client->restart();
        $this->logIn('dell');
        $page = $this->press('ike', 'New link');
        self::assertStringContainsString(
            'Only an owner can change an owner, or a person who works at other sites too',
            $page->filter('[role=alert]')->text(),
        );
        $this->press('ike', 'Disable account');
        self::assertResponseStatusCodeSame(303);
        $this->client->restart();
        $login = $this->client->request('GET', '/login')->selectButton('Log in')->form();
        $this->client->submit($login, ['_username' => 'ike', '_password' => 'oak-and-patience']);
        $header = $this->client->followRedirect()->filter('header')->text();
        self::assertStringContainsString('Mill Bend', $header, 'who has left one still works in the other');
        self::assertStringNotContainsString('Quarry Lane', $header);
    }

    public function testAManagerNeitherMakesNorTouchesAnOwner(): void
    {
        $this->logIn('dell');
        $ona = $this->account('ona');
        $page = $this->client->request('GET', "/people/$ona");
        self::assertStringContainsString(
            'Only an owner can change an owner, or a person who works at other sites too',
            $page->filter('main')->text(),
        );
        $token = $this->client
            ->request('GET', '/people/'.$this->account('ike'))
            ->filter('[name=_token]')
            ->attr('value');
        foreach (['invite', 'disable', 'sign-out'] as $what) {
            $this->client->request('POST', "/people/$ona/$what", ['_token' => $token]);
            self::assertResponseStatusCodeSame(422, $what);
        }
        $asked = ['_token' => $token, 'name' => 'Ike Tallow', 'role' => 'owner'];
        $this->client->request('POST', '/people/'.$this->account('ike'), $asked);
        self::assertResponseStatusCodeSame(422);
        $asked = ['_token' => $token, 'name' => 'New', 'login' => 'newone', 'initials' => 'NO', 'role' => 'owner'];
        $this->client->request('POST', '/people', $asked);
        self::assertResponseStatusCodeSame(422);
        self::assertSame(1, $this->number("SELECT count(*) FROM account WHERE role = 'owner'"));
    }

    private function open(): Crawler
    {
        $this->logIn('ona');
        $page = $this->client->request('GET', '/sites/new');
        self::assertSame('America/Denver', $page->filter('[name=timezone]')->attr('value'));
        $form = $page->selectButton('Add site')->form();
        $form->remove('copy_recipes');
        $this->client->submit($form, ['name' => 'Mill Bend', 'unit' => 'C', 'weight_unit' => 'lb', 'clock' => '12']);

        return $this->client->followRedirect();
    }

    private function account(string $login): string
    {
        return $this->words(
            "SELECT a.id FROM account a JOIN person p ON p.id = a.person_id
             WHERE p.login = '$login' ORDER BY a.id LIMIT 1",
        );
    }

    private function press(string $login, string $button): Crawler
    {
        $page = $this->client->request('GET', '/people/'.$this->account($login));

        return $this->client->submit($page->selectButton($button)->form());
    }
}
