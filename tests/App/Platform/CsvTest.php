<?php

declare(strict_types=1);

namespace Verjuicer\Tests\App\Platform;

use PHPUnit\Framework\Attributes\DataProvider;
use PHPUnit\Framework\TestCase;
use Verjuicer\App\Platform\Csv\Csv;

/** What a spreadsheet would take for a formula is harmless in a file, and comes back as it was. */
final class CsvTest extends TestCase
{
    #[DataProvider('cells')]
    public function testACellIsHarmlessAndComesBackAsItWas(string $cell, string $written): void
    {
        $line = Csv::line(['a', $cell]);
        self::assertSame("a,$written\r\n", $line);
        self::assertSame([['a', $cell]], Csv::read($line));
    }

    /** @return iterable<string, array{string, string}> */
    public static function cells(): iterable
    {
        yield 'words' => ['lamb', 'lamb'];
        yield 'a formula' => ['=1+1', "'=1+1"];
        yield 'a command' => ['=cmd|" /c"!A1', '"\'=cmd|"" /c""!A1"'];
        yield 'a plus' => ['+x', "'+x"];
        yield 'a minus' => ['-x', "'-x"];
        yield 'an at' => ['@SUM(A1)', "'@SUM(A1)"];
        yield 'a number below zero' => ['-4.5', '-4.5'];
        yield 'an apostrophe before a formula' => ["'=x", "''=x"];
        yield 'an apostrophe' => ["'tis", "'tis"];
        yield 'several lines' => ["a\r\nb", "\"a\r\nb\""];
    }
}
