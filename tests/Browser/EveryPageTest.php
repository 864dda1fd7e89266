<?php

declare(strict_types=1);

namespace Verjuicer\Tests\Browser;

use PHPUnit\Framework\Attributes\DataProvider;
use Symfony\Component\DomCrawler\Crawler;
use Verjuicer\App\Platform\Wording\Language;

/**
 * Every page the router knows, in every role: one h1, a title, nothing serious in anybody's way, and no wider than the
 * narrowest screen. A new route is among them by itself; one that is no page is named here.
 */
final class EveryPageTest extends PageWalkCase
{
    /** @var array<string, true> */
    private static array $seen = [];

    #[DataProvider('roles')]
    public function testIsSoundForEverybody(string $login): void
    {
        $this->logIn($login);
        if ($login === 'dell') {
            $this->prepare();
        }
        $wrong = $seen = [];
        foreach ($this->addresses() as $path) {
            [$status, $page] = $this->answered($path);
            if (!\in_array($status, [200, 422], true)) {
                continue; // not for this role
            }
            $seen[] = $path;
            $new = self::newParts($page);
            if ($new === []) {
                continue;
            }
            $this->screen(390, 844, true);
            $this->open($path);
            $wrong[$path] = [
                ...$this->faults(),
                ...$this->seriousAccessibilityFindings(),
                ...$this->tooWide(390),
                ...$login === 'dell' ? $this->tooWide(305) : [], // 320 with a scroll bar
            ];
            if ($login === 'dell') {
                $this->screen(1280, 800, false);
                array_push($wrong[$path], ...$this->seriousAccessibilityFindings([], $new));
                foreach (['night', 'sun'] as $theme) {
                    $this->browser->executeScript('document.documentElement.dataset.theme = arguments[0]', [$theme]);
                    array_push(
                        $wrong[$path],
                        ...array_map(
                            static fn (string $one): string => "in the $theme theme: $one",
                            $this->seriousAccessibilityFindings(['color-contrast'], $new),
                        ),
                    );
                }
            }
        }
        self::assertSame([], array_filter($wrong));
        self::assertGreaterThan($login === 'wynn' ? 25 : 40, \count($seen), implode(' ', $seen));
    }

    public function testFitsTheScreenInSpanish(): void
    {
        $this->logIn('dell');
        $this->prepare();
        $this->browser->manage()->addCookie(['name' => Language::COOKIE, 'value' => Language::Spanish->value]);
        self::assertSame([], $this->faultsInLanguage('es'));
    }

    /** @return iterable<string, array{string}> */
    public static function roles(): iterable
    {
        yield 'the manager' => ['dell'];
        yield 'the pitmaster' => ['mara'];
        yield 'the crew' => ['ike'];
        yield 'the inspector' => ['wynn'];
    }

    /**
     * @return list<string> selectors of the parts of a page that were not checked yet; figures and ids do not count
     */
    private static function newParts(string $page): array
    {
        $main = preg_match('#<main.*</main>#s', $page, $part) === 1 ? $part[0] : $page;
        // What stands around the page differs by role, and is looked through with the first page that has it.
        $new = self::isKnown(str_replace($main, '', $page)) ? [] : ['html'];
        foreach ((new Crawler($main))->filter('main > *') as $at => $node) {
            if (!self::isKnown((string) $node->ownerDocument?->saveHTML($node))) {
                $new[] = \sprintf('main > :nth-child(%d)', $at + 1);
            }
        }

        return $new;
    }

    private static function isKnown(string $page): bool
    {
        $own = ['/value="[^"]*"/', '/[0-9a-f]{8}-[0-9a-f-]{27}/', '/title="[^"]*"/', '/[A-Z]{2} ·/', '/\d+/'];
        $page = md5((string) preg_replace($own, '', $page));
        $isKnown = isset(self::$seen[$page]);
        self::$seen[$page] = true;

        return $isKnown;
    }
}
