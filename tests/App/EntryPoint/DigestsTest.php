<?php

declare(strict_types=1);

namespace Verjuicer\Tests\App\EntryPoint;

use PHPUnit\Framework\Attributes\DataProvider;
use PHPUnit\Framework\TestCase;
use Symfony\Component\Process\Process;

/** What a drill compares, and that it fails where the copy is not what there is. */
final class DigestsTest extends TestCase
{
    private const ROOT = __DIR__.'/../../..';

    /** @param array<string, mixed> $after */
    #[DataProvider('copies')]
    public function testACopyIsComparedWithWhatThereWas(array $after, string $how, ?string $wrong): void
    {
        $before = self::digests(['a' => [9, 'x']], ['event' => 7, 'lot' => 2]);
        $process = new Process(
            [\PHP_BINARY, 'deploy/compare-digests.php', self::json($before), self::json($after), $how],
            self::ROOT,
        );
        self::assertSame($wrong === null ? 0 : 1, $process->run(), $process->getOutput());
        self::assertStringContainsString($wrong ?? 'links of 1 sites are there', $process->getOutput());
    }

    /** @return iterable<string, array{array<string, mixed>, string, string|null}> */
    public static function copies(): iterable
    {
        $kinds = ['event' => 7, 'lot' => 2];
        yield 'the same' => [self::digests(['a' => [9, 'x']], $kinds), 'same', null];
        yield 'with what came since' => [self::digests(['a' => [11, 'y']], ['event' => 9, 'lot' => 2]), 'same', null];
        yield 'without the last links' => [self::digests(['a' => [8, 'w']], $kinds), 'same', 'at link 8, not at 9'];
        yield 'another chain' => [self::digests(['a' => [9, 'z']], $kinds), 'same', 'another digest at link 9'];
        yield 'without a site' => [self::digests([], $kinds), 'same', 'ends at link 0'];
        yield 'without a row' => [self::digests(['a' => [9, 'x']], ['event' => 6, 'lot' => 2]), 'same', '6 of 7 rows'];
        yield 'as it was earlier' => [self::digests(['a' => [5, 'v']], ['event' => 4]), 'earlier', null];
        yield 'later than there is' => [self::digests(['a' => [10, 'u']], $kinds), 'earlier', 'more than there is'];
    }

    /**
     * @param array<string, array{int, string}> $sites position and digest
     * @param array<string, int> $kinds
     *
     * @return array<string, mixed>
     */
    private static function digests(array $sites, array $kinds): array
    {
        $last = [];
        foreach ($sites as $site => [$position, $digest]) {
            $last[] = ['site' => $site, 'position' => $position, 'digest' => $digest];
        }

        return ['sites' => $last, 'kinds' => $kinds, 'newest' => '2026-11-26T12:00:00Z'];
    }

    /** @param array<string, mixed> $digests */
    private static function json(array $digests): string
    {
        return json_encode($digests, \JSON_THROW_ON_ERROR);
    }
}
