<?php

declare(strict_types=1);

namespace Verjuicer\Tests\App\Platform;

use PHPUnit\Framework\Attributes\DataProvider;
use Verjuicer\Tests\App\KitchenTestCase;

final class RejectMalformedInputTest extends KitchenTestCase
{
    /** @param array<string, mixed> $sent */
    #[DataProvider('unreadable')]
    public function testWhatIsNoTextIsRefusedBeforeAnythingReadsIt(string $method, string $path, array $sent): void
    {
        $this->logIn();
        $before = $this->number('SELECT count(*) FROM event');
        $this->client->request($method, $path, $sent);
        self::assertResponseStatusCodeSame(400);
        self::assertStringContainsString('cannot be read', $this->client->getCrawler()->text());
        self::assertSame($before, $this->number('SELECT count(*) FROM event'));
    }

    /** @return iterable<string, array{string, string, array<string, mixed>}> */
    public static function unreadable(): iterable
    {
        yield 'NUL in a line' => ['POST', '/log', ['line' => "7 203\0"]];
        yield 'no UTF-8 in a line' => ['POST', '/log', ['line' => "7 note \xff\xfe"]];
        yield 'within a list' => ['POST', '/log', ['line' => ['a' => ["\0"]]]];
        yield 'in a search' => ['GET', '/find?words=%FF%FE', []];
        yield 'in a name' => ['POST', '/log', ["\xff" => 'x']];
    }
}
