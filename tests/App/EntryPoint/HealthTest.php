<?php

declare(strict_types=1);

namespace Verjuicer\Tests\App\EntryPoint;

use Verjuicer\App\Platform\Machine\MachineStates;
use Verjuicer\Tests\App\KitchenTestCase;
use Verjuicer\Tests\Kitchen\TestKitchen;

final class HealthTest extends KitchenTestCase
{
    public function testItSaysWhetherItAnswersAndWhetherItCanKeepAnEntry(): void
    {
        $this->client->request('GET', '/healthz');
        self::assertResponseIsSuccessful();
        $this->client->request('GET', '/readyz');
        self::assertResponseIsSuccessful();
        self::assertSame(
            '{"ready":true,"database":true,"schema":true,"tenancy":true,"queue":true,"clock":true}',
            $this->client->getResponse()->getContent(),
        );
        $this->connection()->executeStatement(
            "INSERT INTO messenger_messages (body, headers, queue_name, created_at, available_at)
             VALUES ('', '[]', 'default', '2026-11-01', '2026-11-01')",
        );
        $this->client->request('GET', '/readyz');
        self::assertResponseStatusCodeSame(503, 'a worker that does nothing is seen');
        $this->connection()->executeStatement('DELETE FROM messenger_messages');
        foreach (['-1 hour' => 503, '+13 days' => 200, '+15 days' => 503] as $clock => $status) {
            self::mockTime(new \DateTimeImmutable(TestKitchen::MOMENT." $clock"));
            $this->client->request('GET', '/readyz');
            self::assertResponseStatusCodeSame($status, $clock);
        }
    }

    public function testALateOrFailedBackupIsSaidAndStopsNobody(): void
    {
        $this->client->request('GET', '/keptz');
        self::assertResponseIsSuccessful('where no timer ever ran nothing is late');
        $states = $this->service(MachineStates::class);
        $cases = [[-29, true, 200], [-31, true, 503], [-1, false, 503], [-1, true, 200]];
        foreach ($cases as [$hours, $isGood, $status]) {
            $this->asOwner();
            self::mockTime(new \DateTimeImmutable(TestKitchen::MOMENT." $hours hours"));
            $states->note('backup', $isGood, 'x');
            self::mockTime(TestKitchen::MOMENT);
            $this->client->request('GET', '/keptz');
            self::assertResponseStatusCodeSame($status, "$hours hours");
            $this->client->request('GET', '/readyz');
            self::assertResponseIsSuccessful();
            $this->logIn('dell');
            $says = str_contains($this->client->request('GET', '/kitchen')->text(), 'the last backup failed or is old');
            self::assertSame($status === 503, $says, 'a manager is told');
            self::assertStringContainsString('Last backup', $this->client->request('GET', '/keeping')->text());
            $this->client->restart();
        }
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
