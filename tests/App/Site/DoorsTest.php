<?php

declare(strict_types=1);

namespace Verjuicer\Tests\App\Site;

use Doctrine\ORM\EntityManagerInterface;
use Otp\Otp;
use ParagonIE\ConstantTime\Base32;
use PHPUnit\Framework\Attributes\DataProvider;
use Symfony\Component\DomCrawler\Crawler;
use Verjuicer\App\Platform\SealedSecrets;
use Verjuicer\App\Site\People\People;
use Verjuicer\App\Site\People\SecondFactor;
use Verjuicer\Tests\App\KitchenTestCase;
use Verjuicer\Tests\Kitchen\TestKitchen;

/** Who comes in, for how long, and what is asked for again. */
final class DoorsTest extends KitchenTestCase
{
    private const PASSWORD = 'oak-and-patience';

    /** Appendix B of RFC 6238, its eight digits cut to the six that are used. */
    #[DataProvider('vectors')]
    public function testCodesAreThoseOfTheStandard(int $seconds, string $code): void
    {
        self::mockTime('@'.$seconds);
        $secret = Base32::encodeUpperUnpadded('12345678901234567890');
        $factor = $this->service(SecondFactor::class);
        self::assertSame(intdiv($seconds, 30), $factor->step($secret, $code));
        self::mockTime('@'.($seconds + 90));
        self::assertNull($factor->step($secret, $code), 'three steps later it is too old');
    }

    /** @return iterable<array{int, string}> */
    public static function vectors(): iterable
    {
        yield [59, '287082'];
        yield [1111111109, '081804'];
        yield [1111111111, '050471'];
        yield [1234567890, '005924'];
        yield [2000000000, '279037'];
    }

    public function testWhoHasASecondFactorNeedsItAndNoCodeIsGoodTwice(): void
    {
        $this->logIn('dell');
        $page = $this->client->request('GET', '/me/factor');
        $secret = str_replace(' ', '', $page->filter('[data-secret]')->text());
        $page = $this->client->submit($page->selectButton('Turn on')->form(['code' => '000000']));
        self::assertSelectorExists('#problem-code');
        self::assertSame($secret, str_replace(' ', '', $page->filter('[data-secret]')->text()), 'the same picture');
        $page = $this->client->submit($page->selectButton('Turn on')->form(['code' => self::code($secret)]));
        $recovery = $page->filter('[data-recovery]')->each(static fn (Crawler $one): string => $one->text());
        self::assertCount(10, $recovery);

        $this->client->restart();
        self::assertStringContainsString('code is missing', $this->logInByForm('dell', self::PASSWORD, ''));
        self::assertStringContainsString(
            'code is missing',
            $this->logInByForm('dell', self::PASSWORD, self::code($secret)),
            'it was used when it was turned on',
        );
        self::assertStringContainsString(
            'Name or password is not right. Check both and try again',
            $this->logInByForm('dell', 'wrong', self::code($secret)),
        );
        self::mockTime((new \DateTimeImmutable(TestKitchen::MOMENT))->modify('+60 seconds'));
        self::assertStringContainsString('Board', $this->logInByForm('dell', self::PASSWORD, self::code($secret, 2)));
        $this->client->restart();
        self::assertStringContainsString('Board', $this->logInByForm('dell', self::PASSWORD, $recovery[3]));
        $this->client->restart();
        self::assertStringContainsString('code is missing', $this->logInByForm('dell', self::PASSWORD, $recovery[3]));
    }

    public function testOfTwoRequestsWithOneCodeOneIsLetIn(): void
    {
        $person = $this->logIn('dell')->person;
        $people = $this->service(People::class);
        self::assertTrue($people->useFactorStep($person, 7));
        $person->factorStep = 0; // as another request read it before
        self::assertFalse($people->useFactorStep($person, 7));
        $person->recoveryHashes = ['a', 'b'];
        $this->service(EntityManagerInterface::class)->flush();
        self::assertTrue($people->useRecoveryCode($person, 'a'));
        self::assertFalse($people->useRecoveryCode($person, 'a'));
        self::assertSame(['b'], $person->recoveryHashes);
    }

    public function testASecretOfBeforeSecretsWereSealedIsSealedOnceItIsUsed(): void
    {
        $dell = $this->logIn('dell');
        $secret = 'JBSWY3DPEHPK3PXPJBSWY3DPEHPK3PXP';
        $dell->person->factorSecret = $secret;
        $this->service(EntityManagerInterface::class)->flush();
        self::assertFalse($this->service(SecondFactor::class)->accepts($dell, '000000'));
        $stored = "SELECT factor_secret FROM person WHERE login = 'dell'";
        self::assertSame($secret, $this->words($stored), 'a wrong code changes nothing');
        self::assertTrue($this->service(SecondFactor::class)->accepts($dell, self::code($secret)));
        self::assertStringNotContainsString($secret, $this->words($stored));
        self::assertSame($secret, $this->service(SealedSecrets::class)->opened($this->words($stored)));
    }

    public function testTurningItOffNeedsACodeAndItsSecretIsNotReadableInTheDatabase(): void
    {
        $this->logIn('dell');
        $page = $this->client->request('GET', '/me/factor');
        $secret = str_replace(' ', '', $page->filter('[data-secret]')->text());
        $this->client->submit($page->selectButton('Turn on')->form(['code' => self::code($secret)]));
        $stored = $this->words("SELECT factor_secret FROM person WHERE login = 'dell'");
        self::assertStringNotContainsString($secret, $stored);
        self::assertSame($secret, $this->service(SealedSecrets::class)->opened($stored));
        self::assertSame('', (new SealedSecrets('another key'))->opened($stored));
        $page = $this->client->request('GET', '/me/factor');
        $page = $this->client->submit($page->selectButton('Turn off')->form(['code' => '']));
        self::assertSelectorExists('#problem-code');
        $page = $this->client->submit($page->selectButton('Turn off')->form(['code' => self::code($secret)]));
        self::assertSelectorExists('#problem-code', 'it was used when it was turned on');
        self::mockTime((new \DateTimeImmutable(TestKitchen::MOMENT))->modify('+60 seconds'));
        $this->client->submit($page->selectButton('Turn off')->form(['code' => self::code($secret, 2)]));
        self::assertResponseRedirects('/me');
    }

    public function testFiveWrongPasswordsOfOnesOwnAreEnough(): void
    {
        $this->logIn('dell');
        $page = $this->client->request('GET', '/me');
        $sent = ['current' => 'wrong', 'password' => 'a-new-one-quite-long'];
        $form = $page->filterXPath("//form[.//input[@name='current']]")->form($sent);
        for ($try = 0; $try < 5; ++$try) {
            $this->client->submit($form);
            self::assertSelectorTextContains('#problem-current', 'That is not your current password');
        }
        $this->client->submit($form, ['current' => self::PASSWORD]);
        self::assertSelectorTextContains('#problem-current', 'Too many tries');
    }

    public function testASiteCanDemandItOfItsManagers(): void
    {
        $this->connection()->executeStatement('UPDATE site SET asks_second_factor = true');
        $this->logIn('dell');
        $this->client->request('GET', '/');
        self::assertResponseRedirects('/me/factor');
        self::assertStringContainsString(
            'This site requires a second factor for managers',
            $this->client->followRedirect()->text(),
        );
        $this->logIn('mara');
        $this->client->request('GET', '/');
        self::assertResponseIsSuccessful();
    }

    public function testWhatMattersAsksForThePasswordAgainAndLosesNothing(): void
    {
        $this->logIn('dell');
        $form = $this->client->request('GET', '/site')->selectButton('Save')->form();
        $this->later('+11 minutes');
        $page = $this->client->submit($form, ['address' => '4 Quarry Lane', 'reason' => 'new sign']);
        self::assertStringContainsString('Confirm your password', $page->text());
        $page = $this->client->submit($page->selectButton('Continue')->form(['_password_again' => 'wrong']));
        self::assertResponseStatusCodeSame(422);
        self::assertSame(0, $this->number('SELECT count(*) FROM site_change'));
        $this->client->submit($page->selectButton('Continue')->form(['_password_again' => self::PASSWORD]));
        self::assertResponseRedirects('/site');
        self::assertSame('4 Quarry Lane', $this->words('SELECT address FROM site'));
        $this->logIn('wynn');
        $this->later('+30 minutes');
        $page = $this->client->request('GET', '/export/readings?from=2026-11-01&to=2026-11-30');
        self::assertStringContainsString('Confirm your password', $page->text());
        $this->client->submit($page->selectButton('Continue')->form(['_password_again' => self::PASSWORD]));
        self::assertResponseIsSuccessful();
        self::assertStringStartsWith('text/csv', $this->client->getResponse()->headers->get('Content-Type') ?? '');
    }

    public function testASessionEndsByRoleAndTheWallStays(): void
    {
        $this->logInByForm('wynn', self::PASSWORD, '');
        $this->later('+50 minutes');
        $this->client->request('GET', '/kitchen');
        self::assertResponseIsSuccessful();
        // What the page asks by itself keeps nobody in.
        $this->later('+105 minutes');
        $this->client->request('GET', '/board/live');
        self::assertResponseIsSuccessful();
        $this->later('+112 minutes');
        $this->client->request('GET', '/wall/live');
        self::assertResponseIsSuccessful();
        $this->client->request('GET', '/kitchen');
        self::assertResponseRedirects('/login');
        $this->later('+0 minutes');
        $this->logInByForm('dell', self::PASSWORD, '');
        foreach ([3, 6, 9, 12, 15] as $hours) {
            $this->later("+$hours hours");
            $this->client->request('GET', '/kitchen');
            self::assertResponseIsSuccessful();
        }
        $this->later('+17 hours');
        $this->client->request('GET', '/kitchen');
        self::assertResponseRedirects('/login', null, 'however much was done');
    }

    public function testAnUnknownNameIsAnsweredAsAWrongPasswordIs(): void
    {
        self::assertSame(
            str_replace('ike', '', $this->logInByForm('ike', 'wrong', '')),
            str_replace('nobody', '', $this->logInByForm('nobody', 'wrong', '')),
        );
    }

    private function later(string $by): void
    {
        self::mockTime((new \DateTimeImmutable(TestKitchen::MOMENT))->modify($by));
    }

    private static function code(string $secret, int $later = 0): string
    {
        $step = intdiv((new \DateTimeImmutable(TestKitchen::MOMENT))->getTimestamp(), 30) + $later;

        return (new Otp())->hotp(Base32::decodeUpper($secret), $step);
    }

    private function logInByForm(string $login, string $password, string $code): string
    {
        $form = $this->client->request('GET', '/login')->selectButton('Log in')->form();
        $this->client->submit($form, ['_username' => $login, '_password' => $password, '_code' => $code]);

        return $this->client->followRedirect()->filter('body')->text();
    }
}
