<?php

declare(strict_types=1);

namespace Verjuicer\Tests\App\Site;

use Symfony\Component\DomCrawler\Crawler;
use Verjuicer\Tests\App\KitchenTestCase;
use Verjuicer\Tests\Kitchen\TestKitchen;

/** A tablet that several people use: names, a PIN, and nothing in anybody else's name. */
final class TabletTest extends KitchenTestCase
{
    public function testAPinLetsInOnARegisteredTabletAndEntriesBelongToWhoeverStandsThere(): void
    {
        $this->setPin('ike', '4711');
        $this->setPin('mara', '0815');
        $this->client->request('GET', '/who');
        self::assertResponseRedirects('/login', null, 'elsewhere a PIN is good for nothing');
        $this->register('pit tablet');
        $page = $this->client->request('GET', '/who?back=/log');
        self::assertSame(['IT', 'MR'], $page->filter('.who-name .font-extrabold')->each(
            static fn (Crawler $one): string => $one->text(),
        ));
        $page = $this->enter($page, 'ike', '4712');
        self::assertSelectorExists('#problem-pin');
        $this->enter($page, 'ike', '4711');
        self::assertResponseRedirects('/log', null, 'where they were');
        $this->keep('7 171');
        self::assertSame('IT', $this->lastInitials());
        $this->client->request('GET', '/who');
        $this->client->request('GET', '/kitchen');
        self::assertResponseRedirects('/login', null, 'whoever stood there before is gone');
        $this->enter($this->client->request('GET', '/who'), 'mara', '0815');
        $this->keep('7 172');
        self::assertSame('MR', $this->lastInitials());
    }

    public function testWithAPinNobodySignsOrSetsAnything(): void
    {
        $this->setPin('dell', '2580');
        $this->register('pit tablet');
        $page = $this->client->request('GET', '/who');
        $this->enter($page, 'dell', '2580');
        $own = ['/me', '/me/sign-out', '/me/pin', '/me/factor'];
        foreach (['/site', '/people', '/devices', ...$own, '/days/2026-11-24', '/exchange'] as $path) {
            $this->client->request('POST', $path);
            self::assertResponseStatusCodeSame(403, $path);
            self::assertStringContainsString('Password needed', (string) $this->client->getResponse()->getContent());
        }
    }

    public function testFiveWrongPinsCloseTheNameForAMinuteAndNobodyElses(): void
    {
        $this->setPin('ike', '4711');
        $this->setPin('mara', '0815');
        $this->register('pit tablet');
        $page = $this->client->request('GET', '/who');
        for ($try = 0; $try < 5; ++$try) {
            $page = $this->enter($page, 'ike', '0000');
        }
        $page = $this->enter($page, 'ike', '4711');
        self::assertStringContainsString('Too many tries', $page->filter('#problem-pin')->text());
        $this->enter($page, 'mara', '0815');
        self::assertResponseRedirects('/');
    }

    public function testOnATabletTheLoginIsNamesAndPins(): void
    {
        $this->setPin('ike', '4711');
        $this->register('pit tablet');
        $this->nobodyStandsThere();
        $this->client->request('GET', '/');
        self::assertResponseRedirects('/login');
        $this->client->followRedirect();
        self::assertResponseRedirects('/who');
        $page = $this->client->followRedirect();
        $page = $this->client->click($page->selectLink('Log in with password')->link());
        $this->client->submit($page->selectButton('Log in')->form(['_username' => 'ike', '_password' => 'wrong']));
        $this->client->followRedirect();
        self::assertSelectorTextContains('[role=alert]', 'Name or password is not right. Check both and try again');
        $this->enter($this->client->request('GET', '/who'), 'ike', '4711');
        $page = $this->client->request('GET', '/');
        $this->client->submit($page->selectButton('Log out')->form());
        $this->client->followRedirect();
        self::assertResponseRedirects('/who');
    }

    public function testWrongPinsCountByNameOnWhateverTablet(): void
    {
        $this->setPin('ike', '4711');
        $this->register('pit tablet');
        $page = $this->client->request('GET', '/who');
        for ($try = 0; $try < 5; ++$try) {
            $page = $this->enter($page, 'ike', '0000');
        }
        $this->register('hall tablet');
        $page = $this->enter($this->client->request('GET', '/who'), 'ike', '4711');
        self::assertStringContainsString('Too many tries', $page->filter('#problem-pin')->text());
    }

    public function testRevokingATabletEndsItsSessions(): void
    {
        $this->setPin('ike', '4711');
        $this->register('pit tablet');
        $this->enter($this->client->request('GET', '/who'), 'ike', '4711');
        $this->client->request('GET', '/kitchen');
        self::assertResponseIsSuccessful();
        $this->asOwner();
        $this->connection()->executeStatement("UPDATE device SET revoked_at = now() WHERE name = 'pit tablet'");
        $this->connection()->executeStatement('SET ROLE verjuicer_app');
        $this->client->request('GET', '/kitchen');
        self::assertResponseRedirects('/login');
        $this->client->request('GET', '/kitchen');
        self::assertResponseRedirects('/login', message: 'and it stays so');
    }

    public function testATabletTakenAwayIsNoneAnyMore(): void
    {
        $this->setPin('ike', '4711');
        $this->register('pit tablet');
        $this->logIn('dell');
        $page = $this->client->request('GET', '/devices');
        $this->client->submit($page->selectButton('Remove')->form());
        $this->client->request('GET', '/who');
        self::assertResponseRedirects('/login');
    }

    private function nobodyStandsThere(): void
    {
        $this->client->request('GET', '/who');
    }

    private function setPin(string $login, string $pin): void
    {
        $this->logIn($login);
        $page = $this->client->request('GET', '/me');
        $this->client->submit($page->selectButton('Save PIN')->form(['pin' => '1111']));
        self::assertSelectorExists('#problem-pin');
        $this->client->submit($page->selectButton('Save PIN')->form(['pin' => $pin]));
        self::assertResponseRedirects('/me');
    }

    private function register(string $name): void
    {
        $this->logIn('dell');
        $page = $this->client->request('GET', '/devices');
        $this->client->submit($page->selectButton('Register this tablet')->form(['name' => $name]));
        self::assertResponseRedirects('/devices');
        self::mockTime(TestKitchen::MOMENT);
    }

    private function enter(Crawler $page, string $login, string $pin): Crawler
    {
        $of = "JOIN person p ON p.id = a.person_id WHERE p.login = '$login'";
        $person = $this->words("SELECT a.id FROM account a $of");

        return $this->client->submit($page->selectButton('Continue')->form(['person' => $person, 'pin' => $pin]));
    }

    private function lastInitials(): string
    {
        return $this->words('SELECT initials FROM event ORDER BY seq DESC LIMIT 1');
    }
}
