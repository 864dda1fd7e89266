<?php

declare(strict_types=1);

namespace Verjuicer\Tests\Architecture;

use PHPUnit\Framework\Attributes\DataProvider;
use PHPUnit\Framework\TestCase;

/** No folder depends on itself by way of another. */
final class FoldersTest extends TestCase
{
    private const ROOT = __DIR__.'/../..';

    #[DataProvider('roots')]
    public function testNoCircleRunsBetweenFolders(string $folder, string $namespace): void
    {
        $uses = self::uses(self::ROOT.'/'.$folder, $namespace);
        self::assertGreaterThan(8, \count($uses), 'they were read');
        $circles = [];
        foreach (array_keys($uses) as $start) {
            $circle = self::wayBack($uses, $start, [$start]);
            if ($circle !== null) {
                sort($circle);
                $circles[implode(' ', $circle)] = $circle;
            }
        }
        self::assertSame([], array_keys($circles));
    }

    /** @return iterable<string, array{string, string}> */
    public static function roots(): iterable
    {
        yield 'core' => ['core', 'Verjuicer\Core\\'];
        yield 'application' => ['src', 'Verjuicer\App\\'];
    }

    public function testACircleWouldBeFound(): void
    {
        self::assertNull(self::wayBack(['a' => ['b' => true], 'b' => ['c' => true], 'c' => []], 'a', ['a']));
        self::assertSame(
            ['a', 'b', 'c'],
            self::wayBack(['a' => ['b' => true], 'b' => ['c' => true], 'c' => ['a' => true]], 'a', ['a']),
        );
    }

    /**
     * @return array<string, array<string, true>> the folders each folder names a class of, in its code and not in its
     *     comments
     */
    private static function uses(string $root, string $namespace): array
    {
        $uses = [];
        foreach (
            new \RecursiveIteratorIterator(
                new \RecursiveDirectoryIterator($root, \FilesystemIterator::SKIP_DOTS),
            ) as $file
        ) {
            if (!($file instanceof \SplFileInfo) || $file->getExtension() !== 'php') {
                continue;
            }
            $own = self::folder(substr($file->getPath(), \strlen($root) + 1));
            $uses[$own] ??= [];
            foreach (\PhpToken::tokenize((string) file_get_contents($file->getPathname())) as $token) {
                $name = ltrim($token->text, '\\');
                if (
                    $token->is([\T_NAME_QUALIFIED, \T_NAME_FULLY_QUALIFIED])
                    && str_starts_with($name, $namespace)
                    && preg_match('/\\\\[A-Z]\w*$/', $name) === 1
                ) {
                    $other = self::folder(
                        str_replace('\\', '/', \dirname(str_replace('\\', '/', substr($name, \strlen($namespace))))),
                    );
                    $isNamespace = is_dir($root.'/'.str_replace('\\', '/', substr($name, \strlen($namespace))));
                    $uses[$own] += $other === $own || $other === '.' || $isNamespace ? [] : [$other => true];
                }
            }
        }

        return $uses;
    }

    /** Two levels are a folder; what is deeper belongs to it. */
    private static function folder(string $path): string
    {
        return implode('/', \array_slice(explode('/', $path), 0, 2));
    }

    /**
     * @param array<string, array<string, true>> $uses
     * @param non-empty-list<string> $way
     *
     * @return list<string>|null
     */
    private static function wayBack(array $uses, string $start, array $way): ?array
    {
        $seen = array_fill_keys($way, true);
        $queue = [[$start, $way]];
        while ($queue !== []) {
            [$at, $path] = array_shift($queue);
            foreach (array_keys($uses[$at] ?? []) as $next) {
                if ($next === $start) {
                    return $path;
                }
                if (!isset($seen[$next])) {
                    $seen[$next] = true;
                    $queue[] = [$next, [...$path, $next]];
                }
            }
        }

        return null;
    }
}
