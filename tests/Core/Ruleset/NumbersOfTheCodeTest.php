<?php

declare(strict_types=1);

namespace Verjuicer\Tests\Core\Ruleset;

use PHPUnit\Framework\TestCase;

/**
 * The numbers of the code stand in the rule set and nowhere else: not in PHP, not in a template, not in a translation.
 */
final class NumbersOfTheCodeTest extends TestCase
{
    private const ROOT = __DIR__.'/../../..';
    /** Made-up food, and how a kitchen likes it: no limits. */
    private const NO_LIMITS = [
        'src/EntryPoint/Demo/',
        'src/Catalogue/Product/ProductCatalogue.php',
        'translations/catalogue.',
    ];
    /** The bounds of a thermometer in the format, how a time is written, and the forms of a plural. */
    private const NONE_OF_ITS = [
        '-40 to 1000 °F (-40 to 540 °C)', '-40 a 1000 °F (-40 a 540 °C)', '1 h 30', '18 hours',
    ];
    /** Under this a number is as likely something else, and seconds of a day are a calendar's. */
    private const LEAST_DEGREES = 100;
    private const LEAST_SECONDS = 3600;
    private const DAY = 86_400;

    public function testNoneStandsInPhp(): void
    {
        [$degrees, $seconds] = self::numbers();
        $found = [];
        foreach ([...self::files('core', 'php'), ...self::files('src', 'php')] as $file) {
            foreach (\PhpToken::tokenize((string) file_get_contents(self::ROOT.'/'.$file)) as $token) {
                $text = trim(str_replace('_', '', $token->text), '\'"');
                $isLimit = match (true) {
                    $token->is(\T_LNUMBER) => isset($seconds[$text]),
                    $token->is(\T_CONSTANT_ENCAPSED_STRING) => (is_numeric($text)
                        && isset($degrees[(string) (float) $text]))
                        || preg_match('/\d\s*°\s*[FC]/u', $text) === 1,
                    default => false,
                };
                if ($isLimit) {
                    $found[] = $file.':'.$token->line.' '.$token->text;
                }
            }
        }
        self::assertSame([], $found);
    }

    public function testNoneStandsInATemplateOrATranslation(): void
    {
        $found = [];
        foreach ([...self::files('templates', 'twig'), ...self::files('translations', 'yaml')] as $file) {
            foreach (explode("\n", (string) file_get_contents(self::ROOT.'/'.$file)) as $number => $line) {
                $line = str_replace(self::NONE_OF_ITS, '', $line);
                if (
                    preg_match(
                        '/\d\s*°\s*[FC]|(?<![-\w])\d+ (hours?|minutes?|days?|h|min)\b|\b[3-8]-\d{3}\.\d/u',
                        $line,
                    ) === 1
                ) {
                    $found[] = $file.':'.($number + 1).' '.trim($line);
                }
            }
        }
        self::assertSame([], $found);
    }

    public function testTheyWouldBeFound(): void
    {
        [$degrees, $seconds] = self::numbers();
        self::assertArrayHasKey('135', $degrees);
        self::assertArrayHasKey('14400', $seconds);
    }

    /** @return array{array<array-key, true>, array<array-key, true>} degrees and seconds of the real rule set */
    private static function numbers(): array
    {
        $degrees = $seconds = [];
        $data = ArtificialRules::real();
        unset($data['house']);
        array_walk_recursive($data, static function (mixed $value, int|string $name) use (&$degrees, &$seconds): void {
            if (\in_array($name, ['f', 'c'], true) && $value >= self::LEAST_DEGREES) {
                $degrees[(string) (float) $value] = true;
            } elseif (str_contains((string) $name, 'seconds') && $value > self::LEAST_SECONDS && $value !== self::DAY) {
                $seconds[(string) $value] = true;
            }
        });

        return [$degrees, $seconds];
    }

    /** @return list<string> */
    private static function files(string $folder, string $extension): array
    {
        $files = [];
        foreach (
            new \RecursiveIteratorIterator(
                new \RecursiveDirectoryIterator(self::ROOT.'/'.$folder, \FilesystemIterator::SKIP_DOTS),
            ) as $file
        ) {
            if ($file instanceof \SplFileInfo && $file->getExtension() === $extension) {
                $path = substr($file->getPathname(), \strlen(self::ROOT) + 1);
                if (
                    array_filter(self::NO_LIMITS, static fn (string $one): bool => str_starts_with($path, $one)) === []
                ) {
                    $files[] = $path;
                }
            }
        }

        return $files;
    }
}
