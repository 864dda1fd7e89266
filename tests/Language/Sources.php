<?php

declare(strict_types=1);

namespace Verjuicer\Tests\Language;

use Symfony\Component\Finder\Finder;

/** What the code says of texts: which keys it names, and words that stand in it in place of a key. */
final readonly class Sources
{
    private const ROOT = __DIR__.'/../../';
    /** Words of people or machines that are the same in every language. */
    private const NO_WORDS = [
        'Verjuicer', 'kg', 'lb', 'SHA', 'ID', 'PDF', 'CSV', 'NDJSON', 'MQTT', 'JSON', 'SVG', 'QR',
        'hPa',
    ];

    /** @return list<string> each text in quotes of the PHP code and the templates */
    public static function quoted(): array
    {
        $quoted = [];
        foreach (self::files(['core', 'src', 'templates'], ['*.php', '*.twig']) as $code) {
            preg_match_all('/([\'"])([a-z][a-zA-Z0-9_.*{}>$ -]*|\.[a-z_.]+)\1/', $code, $found);
            $quoted = array_merge($quoted, $found[2]);
        }

        return array_values(array_unique($quoted));
    }

    /**
     * Keys that are translated as they stand.
     *
     * @return array<string, list<string|null>> with the names of the arguments given; null where PHP gives them
     */
    public static function translated(): array
    {
        $translated = [];
        foreach (self::files(['templates'], ['*.twig']) as $code) {
            $call = '/\'([a-z_]+(?:\.[a-z0-9_]+)+)\'\|trans(\(\{((?:[^{}]|\{[^{}]*\})*)\}[^)]*\))?/';
            preg_match_all($call, $code, $found, \PREG_SET_ORDER);
            foreach ($found as $one) {
                preg_match_all('/\'\{(\w+)\}\'\s*:/', $one[3] ?? '', $arguments);
                $translated[$one[1]][] = implode(',', $arguments[1]);
            }
        }
        foreach (self::files(['src'], ['*.php']) as $code) {
            preg_match_all('/->trans\(\s*\'([a-z_]+(?:\.[a-z0-9_]+)+)\'/', $code, $found);
            foreach ($found[1] as $key) {
                $translated[$key][] = null;
            }
        }

        return $translated;
    }

    /** @return list<string> "file: words" of templates and scripts that no catalogue has */
    public static function words(): array
    {
        $words = [];
        foreach (self::files(['templates'], ['*.html.twig']) as $name => $code) {
            $plain = (string) preg_replace(
                ['/\{#.*?#\}/s', '/\{%.*?%\}/s', '/\{\{.*?\}\}/s', '#<(script|style|svg)\b.*?</\1>#s', '/<!--.*?-->/s'],
                ' ',
                $code,
            );
            preg_match_all('/\s(?:aria-label|title|placeholder|alt)="([^"]*[A-Za-z]{2}[^"]*)"/', $plain, $attributes);
            $plain = (string) preg_replace('/[\w:@.-]+="[^"]*"|\baria-[a-z]+/', '', $plain);
            $texts = array_merge($attributes[1], explode("\n", strip_tags($plain)));
            foreach ($texts as $text) {
                preg_match_all('/\p{L}{2,}/u', html_entity_decode($text), $found);
                if (array_diff($found[0], self::NO_WORDS) !== []) {
                    $words[] = "$name: ".trim($text);
                }
            }
        }
        foreach (self::files(['assets/scripts'], ['*.js']) as $name => $code) {
            $code = (string) preg_replace(['#/\*.*?\*/#s', '#(?<![:\'"])//.*$#m', '#new Error\([^)]*\)#'], '', $code);
            preg_match_all('/(["\'`])((?:(?!\1)[^\\\\\n]|\\\\.)*)\1/', $code, $found);
            foreach ($found[2] as $text) {
                if (preg_match('/^[A-Z][a-z]+(?: [a-z]+)+[.!?]?$|[a-z]{2,} [a-z]{2,} [a-z]{2,}/', $text) === 1) {
                    $words[] = "$name: $text";
                }
            }
        }

        return $words;
    }

    /**
     * @param list<string> $folders
     * @param list<string> $names
     *
     * @return iterable<string, string> the code by file
     */
    private static function files(array $folders, array $names): iterable
    {
        $in = array_map(static fn (string $folder): string => self::ROOT.$folder, $folders);
        foreach ((new Finder())->files()->in($in)->name($names)->sortByName() as $file) {
            yield $file->getRelativePathname() => $file->getContents();
        }
    }
}
