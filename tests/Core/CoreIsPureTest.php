<?php

declare(strict_types=1);

namespace Verjuicer\Tests\Core;

use PHPUnit\Framework\TestCase;

/** What static analysis lets pass: clocks, chance and floats. */
final class CoreIsPureTest extends TestCase
{
    private const CLOCKS = [
        'time',
        'microtime',
        'hrtime',
        'date',
        'getdate',
        'localtime',
        'mktime',
        'gmmktime',
        'strtotime',
        'rand',
        'mt_rand',
        'random_int',
        'random_bytes',
        'uniqid',
        'sleep',
        'getenv',
    ];

    public function testNothingInTheCoreReadsAClockOrChance(): void
    {
        foreach (self::files('') as $file) {
            $tokens = \PhpToken::tokenize((string) file_get_contents($file));
            foreach ($tokens as $index => $token) {
                $name = strtolower(ltrim($token->text, '\\'));
                $isCall =
                    ($tokens[$index + 1] ?? null)?->text === '('
                    && ($tokens[$index - 1] ?? null)?->is([\T_OBJECT_OPERATOR, \T_DOUBLE_COLON, \T_FUNCTION]) !== true
                    && ($tokens[$index - 2] ?? null)?->is(\T_FUNCTION) !== true;
                self::assertFalse(
                    $token->is([\T_STRING, \T_NAME_FULLY_QUALIFIED]) && $isCall && \in_array($name, self::CLOCKS, true),
                    "$file line $token->line: $token->text()",
                );
                self::assertNotContains(
                    $name,
                    ['datetimeimmutable', 'datetime', 'dateperiod'],
                    "$file line $token->line",
                );
            }
        }
    }

    public function testVerdictsAreMadeWithoutFloats(): void
    {
        foreach (['Assess', 'Measure', 'Record'] as $folder) {
            foreach (self::files($folder) as $file) {
                foreach (\PhpToken::tokenize((string) file_get_contents($file)) as $token) {
                    self::assertFalse(
                        $token->is([\T_DNUMBER, \T_DOUBLE_CAST]),
                        "$file line $token->line: $token->text",
                    );
                }
            }
        }
    }

    public function testNoLimitStandsInPhp(): void
    {
        foreach (self::files('Assess') as $file) {
            // How many readings stand in an outline decides nothing.
            if (basename($file) === 'Outline.php') {
                continue;
            }
            foreach (\PhpToken::tokenize((string) file_get_contents($file)) as $token) {
                self::assertFalse(
                    $token->is(\T_LNUMBER) && !\in_array($token->text, ['0', '1', '2', '1_000_000_000'], true),
                    "$file line $token->line: $token->text",
                );
            }
        }
    }

    /** @return list<string> */
    private static function files(string $folder): array
    {
        $files = [];
        foreach (
            new \RecursiveIteratorIterator(
                new \RecursiveDirectoryIterator(__DIR__.'/../../core/'.$folder, \FilesystemIterator::SKIP_DOTS),
            ) as $file
        ) {
            self::assertInstanceOf(\SplFileInfo::class, $file);
            $files[] = $file->getPathname();
        }
        self::assertNotSame([], $files);

        return $files;
    }
}
