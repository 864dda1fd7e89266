<?php

declare(strict_types=1);

namespace Verjuicer\Tests\App\Site;

use Verjuicer\Tests\App\KitchenTestCase;

/** Secrets of programs that read: shown once, taken back. */
final class TokenPagesTest extends KitchenTestCase
{
    public function testItIsMadeShownOnceAndTakenBack(): void
    {
        $this->logIn('dell');
        $this->client->request('GET', '/tokens');
        $page = $this->client->submitForm('Create API key', ['name' => 'Accounts']);
        $secret = trim($page->filter('section code')->text());
        self::assertGreaterThan(30, \strlen($secret));
        self::assertSame(0, $this->number("SELECT count(*) FROM access_token WHERE token_hash = '$secret'"));
        self::assertSame(200, $this->ask($secret));
        self::assertSame(401, $this->ask($secret.'x'));
        self::assertSame(0, $this->client->request('GET', '/tokens')->filter('section code')->count(), 'once');
        $this->client->submit(
            $this->client->getCrawler()->selectButton('Revoke')->form(),
        );
        self::assertResponseRedirects('/tokens');
        self::assertSame(401, $this->ask($secret));
        self::assertStringContainsString('revoked on', $this->client->request('GET', '/tokens')->text());
    }

    public function testOneNeedsANameAndAManager(): void
    {
        $this->logIn('dell');
        $this->client->request('GET', '/tokens');
        $this->client->submitForm('Create API key', ['name' => '']);
        self::assertResponseStatusCodeSame(422);
        self::assertSame(1, $this->client->getCrawler()->filter('#problem-name')->count());
        $this->logIn();
        $this->client->request('GET', '/tokens');
        self::assertResponseStatusCodeSame(403);
    }

    private function ask(string $secret): int
    {
        $this->nobody();
        $this->client->request('GET', '/api/v1/batches', server: ['HTTP_AUTHORIZATION' => "Bearer $secret"]);
        $status = $this->client->getResponse()->getStatusCode();
        $this->logIn('dell');

        return $status;
    }
}
