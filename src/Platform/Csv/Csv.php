<?php

declare(strict_types=1);

namespace Verjuicer\App\Platform\Csv;

/**
 * Comma-separated values as RFC 4180 has them: lines end in CR LF, fields are quoted where they must be. Words that a
 * spreadsheet would take for a formula have an apostrophe before them, and lose it when they are read.
 */
final readonly class Csv
{
    /**
     * The first characters of a formula; and of text already escaped with an apostrophe, which must come back
     * unchanged.
     */
    private const FORMULA = "/^'*[=+\\-@\t\r]/";

    /** @param list<string|int|null> $fields */
    public static function line(array $fields): string
    {
        return implode(
            ',',
            array_map(static function (string|int|null $field): string {
                $text = self::harmless((string) $field);

                return preg_match('/[",\r\n]/', $text) === 1 ? '"'.str_replace('"', '""', $text).'"' : $text;
            }, $fields),
        )."\r\n";
    }

    /**
     * Reads common variants, too: separated by comma, semicolon or tab, the most frequent in the first line; with or
     * without a byte-order mark.
     *
     * @return list<list<string>>
     */
    public static function read(string $text): array
    {
        $text = preg_replace('/^\xEF\xBB\xBF/', '', $text) ?? $text;
        $first = strtok($text, "\r\n");
        $separator = ',';
        foreach ([';', "\t"] as $other) {
            if ($first !== false && substr_count($first, $other) > substr_count($first, $separator)) {
                $separator = $other;
            }
        }
        $stream = fopen('php://temp', 'r+');
        \assert($stream !== false, 'memory is always there');
        fwrite($stream, $text);
        rewind($stream);
        $lines = [];
        while (($fields = fgetcsv($stream, null, $separator, '"', '')) !== false) {
            if ($fields !== [null]) {
                $lines[] = array_map(static fn (?string $field): string => self::plain(trim((string) $field)), $fields);
            }
        }
        fclose($stream);

        return $lines;
    }

    private static function harmless(string $text): string
    {
        return preg_match(self::FORMULA, $text) === 1 && !is_numeric($text) ? "'$text" : $text;
    }

    private static function plain(string $text): string
    {
        return str_starts_with($text, "'") && preg_match(self::FORMULA, substr($text, 1)) === 1
            ? substr($text, 1)
            : $text;
    }
}
