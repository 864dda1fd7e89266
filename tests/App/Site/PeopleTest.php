<?php

declare(strict_types=1);

namespace Verjuicer\Tests\App\Site;

use PHPUnit\Framework\Attributes\DataProvider;
use Symfony\Bundle\FrameworkBundle\Console\Application;
use Symfony\Component\Console\Tester\CommandTester;
use Symfony\Component\DomCrawler\Crawler;
use Symfony\Component\HttpKernel\KernelInterface;
use Verjuicer\App\Ledger\Chain\ChainVerifier;
use Verjuicer\App\Site\People\CommonPasswords;
use Verjuicer\Tests\App\KitchenTestCase;

final class PeopleTest extends KitchenTestCase
{
    private const PASSWORD = 'oak-and-patience';

    public function testSomebodyIsAddedComesInByALinkThatIsGoodOnceAndLeaves(): void
    {
        $by = $this->logIn('dell');
        $link = $this->invite('Nela Birch', 'nb', 'nela');
        $this->client->restart();
        $page = $this->client->request('GET', $link);
        self::assertStringContainsString('Nela Birch', $page->filter('main')->text());
        $page = $this->client->submit($page->selectButton('Save and log in')->form(['password' => 'letmein2026!']));
        self::assertResponseStatusCodeSame(422);
        self::assertSelectorExists('#problem-password');
        $this->client->submit($page->selectButton('Save and log in')->form(['password' => 'walnut lattice morning']));
        self::assertStringContainsString('You are logged in', $this->client->followRedirect()->text());
        $this->keep('7 171');
        self::assertSame('NB', $this->words('SELECT initials FROM event ORDER BY seq DESC LIMIT 1'));
        $this->client->request('GET', $link);
        self::assertResponseStatusCodeSame(410);

        // She leaves: her session, begun before, is over with the next thing she does.
        $hers = $this->client->getCookieJar()->all();
        $this->client->restart();
        $this->logIn('dell');
        $this->press('nela', 'Disable account');
        $this->client->restart();
        array_walk($hers, fn ($cookie) => $this->client->getCookieJar()->set($cookie));
        $this->client->request('GET', '/');
        self::assertResponseRedirects('/login');
        $this->logInByForm('nela', 'walnut lattice morning');
        self::assertStringContainsString(
            'Name or password is not right. Check both and try again',
            $this->client->followRedirect()->text(),
        );
        $this->logIn('dell');
        self::assertStringContainsString('Nela Birch disabled', $this->client->request('GET', '/people')->text());
        $page = $this->add('Niko Bell', 'NB', 'niko');
        self::assertStringContainsString(
            'These initials are taken, maybe by a person who left',
            $page->filter('#problem-initials')->text(),
        );
        self::assertNull($this->service(ChainVerifier::class)->firstBreak($by->site));
    }

    public function testANewLinkEndsThePasswordUntilNow(): void
    {
        $this->logIn('dell');
        $link = self::way($this->press('ike', 'New link'));
        $this->client->restart();
        $this->logInByForm('ike', self::PASSWORD);
        self::assertStringContainsString(
            'Name or password is not right. Check both and try again',
            $this->client->followRedirect()->text(),
        );
        self::mockTime('+4 days');
        $this->client->request('GET', $link);
        self::assertResponseStatusCodeSame(410, 'a link expires');
    }

    public function testTheConsoleLetsTheLastManagerInAgain(): void
    {
        $kernel = self::$kernel;
        self::assertInstanceOf(KernelInterface::class, $kernel);
        $command = new CommandTester((new Application($kernel))->find('verjuicer:invite'));
        self::assertSame(2, $command->execute(['login' => 'nobody']));
        $command->execute(['login' => 'dell']);
        $page = $this->client->request('GET', (string) parse_url(trim($command->getDisplay()), \PHP_URL_PATH));
        $this->client->submit($page->selectButton('Save and log in')->form(['password' => 'a pier in thick fog']));
        $this->client->request('GET', '/people');
        self::assertResponseIsSuccessful();
    }

    public function testWhatSomebodySpeaksIsKeptAndChanged(): void
    {
        $this->logIn('dell');
        $form = $this->client->request('GET', '/people')->selectButton('Create invitation')->form();
        $typed = ['name' => 'Ned Wold', 'initials' => 'NW', 'login' => 'ned', 'languages' => 'Spanish, English'];
        $this->client->submit($form, $typed);
        $row = $this->client->request('GET', '/people')->filter('tr:contains("Ned Wold")');
        self::assertStringContainsString('Spanish, English', $row->text());
        $page = $this->client->click($row->selectLink('Ned Wold')->link());
        $this->client->submit($page->selectButton('Save')->form(), ['languages' => 'Spanish']);
        self::assertStringContainsString(
            '"languages": "Spanish"',
            $this->words("SELECT after::text FROM account_change WHERE what = 'changed' ORDER BY seq DESC LIMIT 1"),
        );
    }

    public function testTheLastManagerStaysOne(): void
    {
        $this->logIn('dell');
        $this->connection()->executeStatement("UPDATE account SET role = 'crew' WHERE initials = 'OQ'");
        $page = $this->press('dell', 'Disable account');
        self::assertStringContainsString('This is the only manager of the site', $page->filter('[role=alert]')->text());
        $id = $this->words("SELECT a.id FROM account a JOIN person p ON p.id = a.person_id WHERE p.login = 'dell'");
        $page = $this->client->request('GET', "/people/$id");
        $page = $this->client->submit($page->selectButton('Save')->form(), ['role' => 'crew']);
        self::assertStringContainsString('This is the only manager of the site', $page->filter('[role=alert]')->text());
    }

    /** @param array<string, string> $typed */
    #[DataProvider('refused')]
    public function testWhoCannotBeAddedIsRefused(array $typed, string $field, string $said): void
    {
        $this->logIn('dell');
        $typed += ['name' => 'Somebody New', 'initials' => 'SN', 'login' => 'taken'];
        $page = $this->add($typed['name'], $typed['initials'], $typed['login']);
        self::assertResponseStatusCodeSame(422);
        self::assertStringContainsString($said, $page->filter("#problem-$field")->text());
        self::assertSame($typed['name'], $page->filter('[name=name]')->attr('value'));
    }

    /** @return iterable<string, array{array<string, string>, string, string}> */
    public static function refused(): iterable
    {
        yield 'a login somebody has' => [['login' => 'MARA'], 'login', 'taken'];
        yield 'initials somebody has' => [['initials' => 'mr'], 'initials', 'taken'];
        yield 'no letters' => [['initials' => '12'], 'initials', 'one to four letters'];
        yield 'a login with a space' => [
            ['login' => 'a b'],
            'login',
            'Use 2 to 40 lowercase letters, digits, dots, dashes or underscores, or an email address',
        ];
    }

    #[DataProvider('passwords')]
    public function testPasswordsAreLongAndNotCommon(string $password, bool $isGood): void
    {
        $problem = $this->service(CommonPasswords::class)->problem($password, ['mara', 'Mara', 'Rook', 'Quarry Lane']);
        self::assertSame($isGood, $problem === null, $problem ?? 'good');
    }

    /** @return iterable<string, array{string, bool}> */
    public static function passwords(): iterable
    {
        yield 'too short' => ['Tr0ub4dor', false];
        yield 'on the list' => ['qwertyuiop', false];
        yield 'on the list, with a year' => ['baseball2026', false];
        yield 'on the list, dressed up' => ['Master-2026!!', false];
        yield 'one letter' => ['aaaaaaaaaaaa', false];
        yield 'their own name' => ['mara rook mara rook', false];
        yield 'long and plain' => ['the river is low in august', true];
        yield 'of the demo' => [self::PASSWORD, true];
    }

    public function testOnesOwnPasswordNeedsTheOldOneAndEndsAllOtherSessions(): void
    {
        $this->logInByForm('wynn', self::PASSWORD);
        $elsewhere = $this->client->getCookieJar()->all();
        $this->client->restart();
        $this->logInByForm('wynn', self::PASSWORD);
        $page = $this->client->request('GET', '/me');
        $form = $page->selectButton('Save')->form();
        $page = $this->client->submit($form, ['current' => 'wrong', 'password' => 'cedar and slow water']);
        self::assertSelectorExists('#problem-current');
        $this->client->submit(
            $page->selectButton('Save')->form(),
            ['current' => self::PASSWORD, 'password' => 'cedar and slow water'],
        );
        self::assertStringContainsString('All other sessions are logged out', $this->client->followRedirect()->text());
        $this->client->restart();
        array_walk($elsewhere, fn ($cookie) => $this->client->getCookieJar()->set($cookie));
        $this->client->request('GET', '/');
        self::assertResponseRedirects('/login');
    }

    public function testOnlyManagersSeeThePeoplePage(): void
    {
        $id = $this->words("SELECT a.id FROM account a JOIN person p ON p.id = a.person_id WHERE p.login = 'dell'");
        foreach (['wynn', 'ike', 'mara'] as $login) {
            $this->logIn($login);
            foreach (['/people', "/people/$id"] as $path) {
                $this->client->request('GET', $path);
                self::assertResponseStatusCodeSame(403, "$login $path");
            }
            $this->client->request('POST', "/people/$id/disable");
            self::assertResponseStatusCodeSame(403);
        }
    }

    private function add(string $name, string $initials, string $login): Crawler
    {
        $form = $this->client->request('GET', '/people')->selectButton('Create invitation')->form();

        return $this->client->submit($form, ['name' => $name, 'initials' => $initials, 'login' => $login]);
    }

    private function invite(string $name, string $initials, string $login): string
    {
        return self::way($this->add($name, $initials, $login));
    }

    private static function way(Crawler $page): string
    {
        return (string) parse_url($page->filter('[data-link]')->text(), \PHP_URL_PATH);
    }

    private function press(string $login, string $button): Crawler
    {
        $id = $this->words("SELECT a.id FROM account a JOIN person p ON p.id = a.person_id WHERE p.login = '$login'");
        $form = $this->client->request('GET', "/people/$id")->selectButton($button)->form();

        return $this->client->submit($form);
    }

    private function logInByForm(string $login, string $password): void
    {
        $form = $this->client->request('GET', '/login')->selectButton('Log in')->form();
        $this->client->submit($form, ['_username' => $login, '_password' => $password]);
    }
}
