<?php

declare(strict_types=1);

namespace Verjuicer\Tests\App\Site;

use Symfony\Component\Uid\Uuid;
use Verjuicer\App\Platform\Now;
use Verjuicer\App\Reporting\Packet\Packets;
use Verjuicer\App\Reporting\Packet\PacketScope;
use Verjuicer\Core\Measure\Span;
use Verjuicer\Tests\App\KitchenTestCase;

/** Activity log beside the record, for a manager. */
final class PeopleLogTest extends KitchenTestCase
{
    public function testLoginsExportsAndPacketsAreToldToAManager(): void
    {
        $this->logInByForm('ike', 'wrong words');
        $this->logInByForm('ike', 'oak-and-patience');
        $this->client->request('GET', '/people/log');
        self::assertResponseStatusCodeSame(403);
        $dell = $this->logIn('dell');
        $this->client->request('GET', '/export/readings?from=2026-11-01&to=2026-11-24');
        $packets = $this->service(Packets::class);
        $now = $this->service(Now::class)->instant();
        $id = Uuid::v7();
        $packets->ask($id, $dell, $now, PacketScope::ofJson('{"from":"2026-11-24","to":"2026-11-24"}'), 'A4');
        $packet = $packets->find($id->toRfc4122());
        self::assertNotNull($packet);
        $packets->finish($packet, $now, '%PDF-');
        $token = $packets->share($packet, $now->plus(Span::ofHours(24)));
        $this->client->request('GET', "/shared/$token");
        self::assertResponseIsSuccessful();
        $this->logIn('dell');
        $told = $this->client->request('GET', '/people/log')->filter('tbody')->text();
        foreach (
            [
                'IT failed login: wrong password',
                'IT logged in',
                'DF exported data readings-2026-11-01-2026-11-24.csv',
                'person with a link opened a packet',
            ] as $line
        ) {
            self::assertStringContainsString($line, $told);
        }
        self::assertStringNotContainsString($token, $told);
        self::assertStringNotContainsString('wrong words', $told);
    }

    private function logInByForm(string $login, string $password): void
    {
        $form = $this->client->request('GET', '/login')->selectButton('Log in')->form();
        $this->client->submit($form, ['_username' => $login, '_password' => $password]);
    }
}
