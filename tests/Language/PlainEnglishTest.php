<?php

declare(strict_types=1);

namespace Verjuicer\Tests\Language;

use PHPUnit\Framework\Attributes\DataProvider;
use PHPUnit\Framework\TestCase;

/** Comments are written in plain words. Folders still to be rewritten are not listed yet. */
final class PlainEnglishTest extends TestCase
{
    private const FOLDERS = [
        'core',
        'src/Catalogue',
        'src/EntryPoint',
        'src/Ledger',
        'src/Platform',
        'src/Projection',
        'src/Reporting',
        'src/Site',
    ];
    private const MOST = 1.5; // per thousand words, the most that well-kept libraries show
    /** Words of clauses that have to be read twice. */
    private const DIALECT = '/\b(?:what|whatever|whoever|whichever|somebody|nobody|anew|besides?|thereof|therein)\b/i';

    #[DataProvider('folders')]
    public function testCommentsSpeakNoDialect(string $folder): void
    {
        $words = 0;
        $found = [];
        foreach (self::comments($folder) as $place => $comment) {
            $words += (int) preg_match_all('/[A-Za-z][A-Za-z\'’-]*/', $comment);
            preg_match_all(self::DIALECT, $comment, $matches);
            foreach ($matches[0] as $word) {
                $found[] = "$place $word";
            }
        }
        self::assertGreaterThan(500, $words);
        self::assertLessThanOrEqual(self::MOST * $words / 1000, \count($found), implode("\n", $found));
    }

    public function testItFindsTheDialect(): void
    {
        self::assertSame(2, preg_match_all(self::DIALECT, 'What is kept, and whoever keeps it. Whatsoever.'));
    }

    /** @return iterable<string, array{string}> */
    public static function folders(): iterable
    {
        foreach (self::FOLDERS as $folder) {
            yield $folder => [$folder];
        }
    }

    /** @return iterable<string, string> text by file and line, without tags, variables and code */
    private static function comments(string $folder): iterable
    {
        $root = \dirname(__DIR__, 2).'/';
        $files = new \RecursiveIteratorIterator(
            new \RecursiveDirectoryIterator($root.$folder, \FilesystemIterator::SKIP_DOTS),
        );
        /** @var \SplFileInfo $file */
        foreach ($files as $file) {
            if ($file->getExtension() !== 'php') {
                continue;
            }
            foreach (\PhpToken::tokenize((string) file_get_contents($file->getPathname())) as $token) {
                if ($token->is([\T_COMMENT, \T_DOC_COMMENT])) {
                    yield substr($file->getPathname(), \strlen($root)).':'.$token->line => (string) preg_replace(
                        '/[\/*#]+|@\w+|\$\w+|`[^`]*`/',
                        ' ',
                        $token->text,
                    );
                }
            }
        }
    }
}
