<?php

declare(strict_types=1);

namespace Verjuicer\Tests\Documents;

use PHPUnit\Framework\TestCase;
use Symfony\Component\Finder\Finder;

/** What README and documents say is there: links, commands, options, pictures. */
final class DocumentsTest extends TestCase
{
    private const ROOT = __DIR__.'/../../';

    public function testEveryLinkLeadsSomewhere(): void
    {
        $broken = [];
        $links = 0;
        foreach (self::documents() as $name => $text) {
            preg_match_all('/\]\(([^)\s]+)\)/', $text, $found);
            foreach ($found[1] as $link) {
                if (preg_match('/^[a-z]+:/', $link) === 1) {
                    continue;
                }
                ++$links;
                [$path, $anchor] = explode('#', $link, 2) + [1 => ''];
                $file = $path === '' ? self::ROOT.$name : self::ROOT.\dirname($name).'/'.$path;
                $isThere = file_exists($file);
                if ($isThere && $anchor !== '') {
                    $isThere = \in_array($anchor, self::anchors((string) file_get_contents($file)), true);
                }
                if (!$isThere) {
                    $broken[] = "$name: $link";
                }
            }
        }
        self::assertSame([], $broken);
        self::assertGreaterThan(50, $links);
    }

    public function testEveryCommandAndOptionIsThere(): void
    {
        $commands = self::commands();
        $wrong = [];
        $seen = 0;
        foreach (self::documents() as $name => $text) {
            $line = '/(?:^    |`)((?:[A-Z_]+=\S+ )*(?:bin|bench|docs\/screenshots)\/[a-z-]+(?:[^`\n]*))/m';
            preg_match_all($line, $text, $found);
            foreach ($found[1] as $said) {
                $parts = '#((?:bin|bench|docs/screenshots)/[a-z-]+)(?: (verjuicer:[a-z:-]+))?([^`\#|]*)#';
                if (preg_match($parts, $said, $part) !== 1) {
                    continue;
                }
                $command = $part[2] === '' ? $part[1] : $part[2];
                $source = $commands[$command] ?? (is_file(self::ROOT.$command)
                    ? (string) file_get_contents(self::ROOT.$command)
                    : null);
                ++$seen;
                if ($source === null && !is_dir(self::ROOT.$command)) {
                    $wrong[] = "$name: $said";
                    continue;
                }
                preg_match_all('/(?<= )--([a-z][a-z-]+)/', $part[3], $options);
                foreach ($options[1] as $option) {
                    if ($source !== null && !str_contains($source, $option)) {
                        $wrong[] = "$name: $command has no --$option";
                    }
                }
            }
            preg_match_all('/`(verjuicer:[a-z:-]+)/', $text, $found);
            foreach (array_diff($found[1], array_keys($commands)) as $command) {
                $wrong[] = "$name: $command";
            }
        }
        self::assertSame([], $wrong);
        self::assertGreaterThan(60, $seen);
    }

    public function testEveryPictureIsLinkedAndNotOlderThanItsTemplates(): void
    {
        $readme = (string) file_get_contents(self::ROOT.'README.md');
        $files = array_map(
            static fn (string|false $file): string => basename((string) $file, '.png'),
            (array) glob(self::ROOT.'docs/screenshots/*.png'),
        );
        self::assertEqualsCanonicalizing(array_keys(Pictures::ALL), $files);
        self::assertLessThan(20, \count($files));
        foreach ($files as $name) {
            self::assertStringContainsString("docs/screenshots/$name.png", $readme);
        }
        self::assertSame([], Pictures::outdated(), 'Take them again: docs/screenshots/take');
    }

    public function testTheReadmeIsShort(): void
    {
        $lines = explode("\n", rtrim((string) file_get_contents(self::ROOT.'README.md')));
        self::assertLessThanOrEqual(200, \count($lines));
        // A row of a table and a picture cannot be wrapped.
        $isLong = static fn (string $line): bool => mb_strlen($line) > 120 && !\in_array($line[0], ['|', '!'], true);
        self::assertSame([], array_filter($lines, $isLong));
    }

    /** @return iterable<string, string> the text of each by its path */
    private static function documents(): iterable
    {
        foreach (['README.md', 'CHANGELOG.md'] as $name) {
            yield $name => (string) file_get_contents(self::ROOT.$name);
        }
        foreach ((new Finder())->files()->in(self::ROOT.'docs')->name('*.md')->sortByName() as $file) {
            yield 'docs/'.$file->getRelativePathname() => $file->getContents();
        }
    }

    /** @return list<string> of the headings of a document */
    private static function anchors(string $text): array
    {
        preg_match_all('/^#+ (.+)$/m', $text, $found);

        return array_map(static fn (string $heading): string => str_replace(
            ' ',
            '-',
            (string) preg_replace('/[^\p{L}\p{N} _-]/u', '', mb_strtolower($heading)),
        ), $found[1]);
    }

    /** @return array<string, string> the source of each console command by its name */
    private static function commands(): array
    {
        $commands = [];
        foreach ((new Finder())->files()->in(self::ROOT.'src')->name('*Command.php') as $file) {
            if (preg_match("/AsCommand\\(\\s*(?:name: )?'(verjuicer:[a-z:-]+)'/", $file->getContents(), $found) === 1) {
                $commands[$found[1]] = $file->getContents();
            }
        }

        return $commands;
    }
}
