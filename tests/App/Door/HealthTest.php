<?php

declare(strict_types=1);

namespace Verjuicer\Tests\App\Door;

use Verjuicer\Tests\App\KitchenTestCase;

final class HealthTest extends KitchenTestCase
{
    public function testItSaysWhetherItAnswersAndWhetherItCanKeepAnEntry(): void
    {
        $this->client->request('GET', '/healthz');
        self::assertResponseIsSuccessful();
        $this->client->request('GET', '/readyz');
        self::assertResponseIsSuccessful();
        self::assertSame(
            '{"ready":true,"database":true,"schema":true,"queue":true}',
            $this->client->getResponse()->getContent(),
        );
        $this->connection()->executeStatement(
            "INSERT INTO messenger_messages (body, headers, queue_name, created_at, available_at)
             VALUES ('', '[]', 'default', '2026-11-01', '2026-11-01')",
        );
        $this->client->request('GET', '/readyz');
        self::assertResponseStatusCodeSame(503, 'a worker that does nothing is seen');
    }

    public function testFiguresAreForThisMachineOnly(): void
    {
        $this->client->request('GET', '/metrics');
        self::assertResponseIsSuccessful();
        $entries = $this->number('SELECT count(*) FROM event');
        self::assertStringContainsString(
            "\nverjuicer_entries $entries\n",
            (string) $this->client->getResponse()->getContent(),
        );
        $this->client->request('GET', '/metrics', server: ['HTTP_X_FORWARDED_FOR' => '192.0.2.4']);
        self::assertResponseStatusCodeSame(404);
        $this->client->request('GET', '/metrics', server: ['REMOTE_ADDR' => '192.0.2.4']);
        self::assertResponseStatusCodeSame(404);
    }
}
