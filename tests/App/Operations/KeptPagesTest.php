<?php

declare(strict_types=1);

namespace Verjuicer\Tests\App\Operations;

use PHPUnit\Framework\Attributes\DataProvider;
use Verjuicer\Tests\App\KitchenTestCase;
use Verjuicer\Tests\App\StatementLog;

/** How many statements a page sends that shows what was made already: counted, never timed. */
final class KeptPagesTest extends KitchenTestCase
{
    private const MOST = 9;

    #[DataProvider('pages')]
    public function testAPageThatWasShownBeforeAsksLittle(string $path): void
    {
        $this->logIn();
        $path = preg_replace_callback(
            '/\{(\d+)\}/',
            fn (array $tag): string => substr($this->path((int) $tag[1]), 9),
            $path,
        ) ?? $path;
        $this->client->request('GET', $path);
        self::assertResponseIsSuccessful();
        $log = $this->service(StatementLog::class);
        $log->since();
        $this->client->request('GET', $path);
        $asked = $this->service(StatementLog::class)->since();
        self::assertLessThanOrEqual(self::MOST, \count($asked), implode("\n", $asked));
    }

    /** @return iterable<string, array{string}> */
    public static function pages(): iterable
    {
        yield 'the board' => ['/'];
        yield 'the board, for its script' => ['/board/live'];
        yield 'a batch' => ['/batches/{7}'];
        yield 'a batch that asks for an action' => ['/batches/{24}'];
        yield 'per portion (' => ['/batches/{261}'];
        yield 'a batch, for its script' => ['/batches/{7}/live'];
        yield 'the wall' => ['/wall/live'];
    }
}
