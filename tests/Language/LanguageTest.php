<?php

declare(strict_types=1);

namespace Verjuicer\Tests\Language;

use PHPUnit\Framework\Attributes\DataProvider;
use PHPUnit\Framework\TestCase;
use Symfony\Component\Yaml\Yaml;
use Verjuicer\App\Catalogue\Product\ProductCatalogue as Products;
use Verjuicer\Core\Ruleset\RuleSetLibrary;

/** Every word of the interface comes from the catalogues, and every text there is used, whole and easy to read. */
final class LanguageTest extends TestCase
{
    /** Of these the code names the first part alone: `FindingText`. */
    private const GROUPS = ['need.', 'category.'];

    public function testNoWordStandsInATemplateOrAScript(): void
    {
        self::assertSame([], Sources::words());
    }

    public function testEveryKeyThatIsTranslatedIsThere(): void
    {
        $keys = array_map(static fn (Text $text): string => $text->key, Catalogue::of('en')->texts);
        self::assertSame([], array_values(array_diff(array_keys(Sources::translated()), $keys)));
    }

    public function testEveryTextIsUsed(): void
    {
        $quoted = Sources::quoted();
        $exact = array_flip($quoted);
        $isPrefix = static fn (string $one): bool => preg_match('/^\w+[._].*[._]$|^\w+\.$/', $one) === 1;
        $prefixes = array_filter($quoted, $isPrefix);
        $patterns = array_map(
            static fn (string $one): string => '/^'.str_replace('\*', '[^.]+', preg_quote(
                (string) preg_replace('/\{?\$[\w>-]+\}?/', '*', $one),
                '/',
            )).'/',
            array_filter($quoted, static fn (string $one): bool => preg_match('/^\w+\..*[*$]/', $one) === 1),
        );
        $isUsed = static function (string $key) use ($exact, $prefixes, $patterns): bool {
            foreach ([...self::GROUPS, ...$prefixes] as $prefix) {
                if (str_starts_with($key, $prefix)) {
                    return true;
                }
            }
            foreach ($patterns as $pattern) {
                if (preg_match($pattern, $key) === 1) {
                    return true;
                }
            }

            return isset($exact[$key]);
        };
        $unused = array_filter(
            Catalogue::of('en')->texts,
            static fn (Text $text): bool => $text->domain !== 'line' && !$isUsed($text->key),
        );
        self::assertSame([], array_keys($unused));
    }

    public function testEachTextIsGivenItsArgumentsAndNoOthers(): void
    {
        $texts = Catalogue::of('en')->texts;
        $wrong = [];
        foreach (Sources::translated() as $key => $uses) {
            $wanted = isset($texts["messages $key"]) ? $texts["messages $key"]->arguments() : [];
            foreach ($uses as $given) {
                // What is given as a whole, or filled in by a script, is not looked into.
                $given = $given === null || $given === '' ? null : explode(',', $given);
                if ($given !== null && (array_diff($wanted, $given) !== [] || array_diff($given, $wanted) !== [])) {
                    $wrong[] = "$key: given ".implode(', ', $given).', wants '.implode(', ', $wanted);
                }
            }
        }
        self::assertSame([], $wrong);
    }

    #[DataProvider('languages')]
    public function testEachTextIsAWholeMessageWithTheArgumentsOfTheEnglishOne(string $language): void
    {
        $english = Catalogue::of('en')->texts;
        $texts = Catalogue::of($language)->texts;
        self::assertSame([], array_keys(array_diff_key($english, $texts)));
        self::assertSame([], array_keys(array_diff_key($texts, $english)));
        foreach ($texts as $id => $text) {
            self::assertNotSame('', $text->written, $id);
            self::assertEqualsCanonicalizing($english[$id]->arguments(), $text->arguments(), $id);
            $values = [];
            foreach ($text->arguments() as $name) {
                $values[$name] = str_contains($text->written, '{'.$name.',') ? 3 : 'value';
            }
            $shown = (new \MessageFormatter($language, $text->written))->format($values);
            self::assertIsString($shown, $id);
            self::assertDoesNotMatchRegularExpression('/[{}]/', $shown, $id);
        }
    }

    /** @return iterable<string, array{string}> */
    public static function languages(): iterable
    {
        foreach (Catalogue::languages() as $language) {
            yield $language => [$language];
        }
    }

    #[DataProvider('languages')]
    public function testSaysWhatARuleSetReadsIntoItsCode(string $language): void
    {
        /** @var array<string, string> $texts */
        $texts = $language === 'en'
            ? []
            : Yaml::parseFile(\dirname(__DIR__, 2)."/translations/rulesets.$language.yaml");
        $library = new RuleSetLibrary(\dirname(__DIR__, 2).'/rulesets');
        foreach ($library->ids() as $id) {
            foreach ($library->get($id)->interpretations() as $interpretation) {
                $text = $language === 'en' ? $interpretation->text : $texts[$interpretation->text] ?? '';
                self::assertStringContainsString('{limit}', $text, $interpretation->text);
            }
        }
    }

    #[DataProvider('languages')]
    public function testTranslatesTheCatalogueOfProducts(string $language): void
    {
        /** @var array<string, string> $texts */
        $texts = $language === 'en'
            ? []
            : Yaml::parseFile(\dirname(__DIR__, 2)."/translations/catalogue.$language.yaml");
        $products = Products::PRODUCTS;
        $asked = [];
        array_walk_recursive($products, static function (mixed $one) use (&$asked): void {
            $asked[\is_string($one) ? $one : ''] = true;
        });
        // "core" is the format's own name of a probe location.
        $asked = array_values(array_diff(array_keys($asked), ['', 'core']));
        self::assertGreaterThan(100, \count($asked));
        self::assertSame([], array_diff($asked, $language === 'en' ? $asked : array_keys($texts)), 'missing');
        self::assertSame([], array_diff(array_keys($texts), $asked), 'unused');
    }

    #[DataProvider('readers')]
    public function testReadsAsEasilyAsItsReadersNeed(string $group, float $most): void
    {
        $sentences = [];
        foreach (Catalogue::of('en')->texts as $text) {
            $sentences = $text->group() === $group ? array_merge($sentences, $text->sentences()) : $sentences;
        }
        self::assertGreaterThan(100, \count($sentences));
        self::assertLessThanOrEqual($most, Reading::grade($sentences));
    }

    /** @return iterable<string, array{string, float}> */
    public static function readers(): iterable
    {
        foreach (Reading::GRADE as $group => $most) {
            yield $group => [$group, $most];
        }
    }

    public function testNoCrewSentenceIsLongAndNoReplacedWordIsLeft(): void
    {
        $found = [];
        foreach (Catalogue::of('en')->texts as $id => $text) {
            foreach ($text->group() === 'crew' ? $text->sentences() : [] as $sentence) {
                if (\count(Reading::words($sentence)) > Reading::LONGEST) {
                    $found[] = "$id: $sentence";
                }
            }
            foreach ($text->domain === 'line' ? [] : Reading::leftover($text) as $word) {
                $found[] = "$id: $word";
            }
        }
        self::assertSame([], $found);
    }

    /** The grade is that of the formula, on texts whose grade is known. */
    public function testMeasuresWhatIsHardToRead(): void
    {
        $easy = Reading::grade(['Put the meat on ice now.', 'Read it at noon.']);
        $hard = Reading::grade(['Temperature documentation requirements necessitate verification procedures.']);
        self::assertLessThan(2.0, $easy);
        self::assertGreaterThan(15.0, $hard);
        $text = new Text('messages', 'x', '{count, plural, one {One gate is broken.} other {Nobody settled # gates.}}');
        self::assertSame(['One gate is broken.', 'Nobody settled 5 gates.'], $text->sentences());
        self::assertSame(['gate', 'broken', 'Nobody', 'settled', 'gates'], Reading::leftover(
            new Text('messages', 'x', 'One gate is broken. Nobody settled both gates.'),
        ));
    }
}
