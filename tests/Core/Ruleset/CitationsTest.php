<?php

declare(strict_types=1);

namespace Verjuicer\Tests\Core\Ruleset;

use PHPUnit\Framework\Attributes\DataProvider;
use PHPUnit\Framework\TestCase;

/** Every section of a code that is cited anywhere stands in the list of its rule set: a slip cites none there is. */
final class CitationsTest extends TestCase
{
    private const ROOT = __DIR__.'/../../..';
    private const SECTION = '/\b[1-8]-[1-9]\d\d\.\d{1,3}\b/';

    #[DataProvider('files')]
    public function testOnlySectionsOfTheListAreCited(string $file): void
    {
        preg_match_all(self::SECTION, (string) file_get_contents($file), $cited);
        self::assertSame([], array_values(array_unique(array_diff($cited[0], self::sections()))));
    }

    public function testTheListHasNoneThatNothingCites(): void
    {
        $cited = [];
        foreach (self::files() as [$file]) {
            $content = (string) file_get_contents($file);
            preg_match_all(self::SECTION, (string) preg_replace('/"sections": \[.*?\]/s', '', $content), $found);
            $cited = [...$cited, ...$found[0]];
        }
        self::assertSame([], array_values(array_diff(self::sections(), $cited)));
    }

    /** @return iterable<string, array{string}> */
    public static function files(): iterable
    {
        foreach (['core', 'src', 'templates', 'translations', 'rulesets'] as $folder) {
            $there = new \RecursiveIteratorIterator(
                new \RecursiveDirectoryIterator(self::ROOT.'/'.$folder, \FilesystemIterator::SKIP_DOTS),
            );
            foreach ($there as $file) {
                if ($file instanceof \SplFileInfo && $file->isFile()) {
                    yield $file->getPathname() => [$file->getPathname()];
                }
            }
        }
    }

    /** @return list<string> */
    private static function sections(): array
    {
        /** @var array{sections: list<string>} $file */
        $file = json_decode(
            (string) file_get_contents(self::ROOT.'/rulesets/us-food-code-2022.json'),
            true,
            flags: \JSON_THROW_ON_ERROR,
        );

        return $file['sections'];
    }
}
