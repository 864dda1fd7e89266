<?php

declare(strict_types=1);

namespace Verjuicer\Tests\App\Operations;

use PHPUnit\Framework\Attributes\DataProvider;
use Verjuicer\App\Platform\Now;
use Verjuicer\Tests\App\KitchenTestCase;

/** What a device kept means the time it was entered at; it is recorded when it comes, and says so. */
final class OfflineEntryTimeTest extends KitchenTestCase
{
    /** @param int $ago seconds ago it was entered */
    #[DataProvider('entered')]
    public function testNowMeansThen(string $line, int $ago, ?int $happened): void
    {
        $this->logIn();
        $now = $this->service(Now::class)->instant()->epoch;
        $form = $this->client->request('GET', '/log')->filter('form[action="/log"]')->form();
        $this->client->request('POST', '/log', [
            'line' => $line,
            'sure' => '1',
            'made_offline' => gmdate('Y-m-d\TH:i:s', $now - $ago).'.123Z',
        ] + $form->getPhpValues());
        if ($happened === null) {
            self::assertResponseStatusCodeSame(422);

            return;
        }
        self::assertResponseRedirects();
        $sql = "SELECT %s FROM event WHERE members->>'made_offline' = 'true'";
        self::assertSame($now - $happened, $this->number(\sprintf($sql, 'extract(epoch FROM at)::bigint')));
        self::assertSame($now, $this->number(\sprintf($sql, 'extract(epoch FROM recorded_at)::bigint')));
        self::assertStringContainsString(
            'entered without a connection',
            $this->client->request('GET', $this->path(7).'/log')->text(),
        );
    }

    /** @return iterable<string, array{string, int, int|null}> */
    public static function entered(): iterable
    {
        yield 'an hour ago' => ['7 171', 3600, 3600];
        yield 'ten minutes before that' => ['7 171 -10', 3600, 4200];
        yield 'by a clock that is a little ahead' => ['7 171', -30, 0];
        yield 'longer ago than a device keeps it' => ['7 171', 8 * 86_400, null];
    }
}
