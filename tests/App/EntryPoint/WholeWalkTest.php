<?php

declare(strict_types=1);

namespace Verjuicer\Tests\App\EntryPoint;

use PHPUnit\Framework\Attributes\DataProvider;
use Symfony\Component\DomCrawler\Crawler;
use Symfony\Component\Process\Process;
use Symfony\Component\Routing\Exception\ExceptionInterface;
use Symfony\Component\Routing\RouterInterface;
use Verjuicer\App\Platform\Wording\DualUnitDisplay;
use Verjuicer\Tests\App\KitchenTestCase;
use Verjuicer\Tests\Kitchen\MetricKitchen;

/**
 * Follows every link of every page of a kitchen, and sends every form empty and with each of its fields wrong. Nothing
 * may fail, and no key of a translation may stand in place of its words.
 */
final class WholeWalkTest extends KitchenTestCase
{
    use DemoInTests;

    /** Addresses of one route that are followed; of a calendar or a list of days there is no end. */
    private const OF_A_ROUTE = ['dell' => 30, 'ona' => 20, 'wynn' => 6];
    private const OF_DAYS = ['day' => 8, 'trend' => 12, 'board' => 20, 'search' => 12, 'recall' => 12, 'what_if' => 8];

    /** Answers that are files, or take the walker out of the kitchen. */
    private const NOT_WALKED = ['logout', 'site_enter', 'who', 'who_is', 'export'];

    /** Papers of which this many are read. */
    private const PAPERS = ['packet_pdf' => 1, 'label_pdf' => 3, 'paper_pdf' => 20];

    private const WRONG = '☠ <b>"\'{{ 7*7 }} %n 99999999999999999999';

    /** @var array<string, true> */
    private array $walked = [];
    private int $mostOfARoute = 0;
    private string $kitchen = '';
    private string $language = 'en';

    /** @var array<string, int> */
    private array $ofRoute = [];

    /** @var array<string, true> */
    private static array $sent = [];

    private static ?string $tops = null;

    /** @var list<string> */
    private array $faults = [];

    #[DataProvider('walkers')]
    public function testNothingFailsWhereverALinkLeads(string $kitchen, string $login, string $language): void
    {
        $this->language = $language;
        $this->kitchen = $kitchen;
        if ($kitchen !== 'test') {
            $this->loadTheDemo($kitchen === 'metric' ? MetricKitchen::story() : null);
        }
        // Thousands of requests: one kernel, its services reset between them.
        $this->client->disableReboot();
        $this->logIn($login);
        $this->mostOfARoute = self::OF_A_ROUTE[$login];
        if ($kitchen !== 'test') {
            $this->askForAPacket();
        }
        $waiting = ['/'];
        $this->walked = ['/' => true];
        while (($path = array_shift($waiting)) !== null) {
            $page = $this->opened($path, $login);
            if (!$this->isSound("GET $path")) {
                continue;
            }
            if ($language === 'en') {
                $this->sendForms($path, $page, $login);
            }
            $links = $page->filter('a[href]')->each(static fn (Crawler $one): string => $one->attr('href') ?? '');
            foreach ($links as $to) {
                $to = $this->next($path, $to);
                if ($to !== null && !isset($this->walked[$to])) {
                    $this->walked[$to] = true;
                    $waiting[] = $to;
                }
            }
        }
        self::assertSame([], $this->faults);
        self::assertGreaterThan($login === 'wynn' ? 40 : 130, \count($this->walked));
    }

    /** @return iterable<string, array{string, string, string}> */
    public static function walkers(): iterable
    {
        yield 'the demo, its manager' => ['demo', 'dell', 'en'];
        yield 'the kitchen of the tests, its owner' => ['test', 'ona', 'en'];
        yield 'the kitchen of the tests, a reader' => ['test', 'wynn', 'en'];
        yield 'a metric kitchen, its owner, in Spanish' => ['metric', 'ona', 'es'];
    }

    /** Of all there is, in the language of the walk, which opens it. */
    private function askForAPacket(): void
    {
        $page = $this->client->request('GET', '/packets', server: ['HTTP_ACCEPT_LANGUAGE' => $this->language]);
        $form = $page->filter('main form')->form(['from' => '2026-11-20', 'language' => $this->language]);
        $this->client->submit($form);
        self::assertResponseRedirects();
    }

    /** Each form once: empty, and with each field wrong while the others are as the page filled them. */
    private function sendForms(string $path, Crawler $page, string $login): void
    {
        foreach ($page->filter('form') as $node) {
            $form = new Crawler($node, 'http://localhost'.$path);
            $method = strtoupper($form->attr('method') ?? 'get');
            $action = $form->attr('action') ?? '';
            $action = $action === '' ? $path : $action;
            $route = $this->route($action, $method);
            $fields = $this->fields($form);
            $shape = $route.' '.implode(',', array_keys($fields));
            if ($route === null || \in_array($route, self::NOT_WALKED, true) || isset(self::$sent[$shape])) {
                continue;
            }
            self::$sent[$shape] = true;
            $tokens = array_intersect_key($fields, ['_token' => true, '_csrf_token' => true, 'id' => true]);
            $tries = ['empty' => $tokens + array_map(static fn (): string => '', $fields)];
            foreach (array_keys($fields) as $name) {
                if (str_starts_with($name, '_')) {
                    continue; // a token: MatrixTest
                }
                $tries["$name is wrong"] = [$name => self::WRONG] + $fields;
            }
            foreach ($tries as $try => $values) {
                $values = array_intersect_key($tokens, ['_token' => true, '_csrf_token' => true]) + $values;
                $this->connection()->executeStatement('SAVEPOINT walk');
                $this->client->request($method, $action, $values);
                $this->isSound("$method $action ($route, of $path), $try");
                while ($this->leadsOn($path)) {
                    $this->client->followRedirect();
                    $this->isSound("after $method $action, $try");
                }
                $this->connection()->executeStatement('ROLLBACK TO SAVEPOINT walk');
                $tokens = $this->tokens($path, $login, $shape) ?? $tokens;
            }
        }
    }

    private function leadsOn(string $path): bool
    {
        $response = $this->client->getResponse();

        return $response->isRedirect()
            && $this->next($path, (string) $response->headers->get('Location')) !== null;
    }

    /** A page, by somebody who is let in again where what was sent before ended the session. */
    private function opened(string $path, string $login): Crawler
    {
        $this->client->getCookieJar()->expire(DualUnitDisplay::COOKIE);
        $page = $this->client->request('GET', $path, server: ['HTTP_ACCEPT_LANGUAGE' => $this->language]);
        if ($this->client->getResponse()->headers->get('Location') !== '/login') {
            return $page;
        }
        $this->logIn($login);

        return $this->client->request('GET', $path, server: ['HTTP_ACCEPT_LANGUAGE' => $this->language]);
    }

    /** @return array<string, string>|null those of the form, where the session is another one by now */
    private function tokens(string $path, string $login, string $shape): ?array
    {
        if ($this->client->getResponse()->headers->get('Location') !== '/login') {
            return null;
        }
        foreach ($this->opened($path, $login)->filter('form') as $node) {
            $form = new Crawler($node, 'http://localhost'.$path);
            $action = $form->attr('action') ?? '';
            $fields = $this->fields($form);
            $route = $this->route($action === '' ? $path : $action, strtoupper($form->attr('method') ?? 'get'));
            if ($route.' '.implode(',', array_keys($fields)) === $shape) {
                return $fields;
            }
        }

        return null;
    }

    /** @return array<string, string> what the form would send as it stands */
    private function fields(Crawler $form): array
    {
        $fields = [];
        foreach ($form->filter('input[name], select[name], textarea[name], button[name]') as $node) {
            if (!$node instanceof \DOMElement) {
                continue;
            }
            $name = $node->getAttribute('name');
            $value = match (true) {
                $node->nodeName === 'textarea' => $node->textContent,
                $node->nodeName === 'select' => $this->chosen($node),
                \in_array($node->getAttribute('type'), ['radio', 'checkbox'], true)
                    && !$node->hasAttribute('checked') => $fields[$name] ?? '',
                default => $node->getAttribute('value'),
            };
            $fields[$name] = $node->nodeName === 'button' ? ($fields[$name] ?? $value) : $value;
        }

        return $fields;
    }

    private function chosen(\DOMElement $select): string
    {
        $options = (new Crawler($select))->filter('option');
        $chosen = $options->filter('[selected]');
        $option = $chosen->count() > 0 ? $chosen : $options;

        return $option->count() === 0 ? '' : ($option->attr('value') ?? trim($option->text()));
    }

    private function isSound(string $said): bool
    {
        $response = $this->client->getResponse();
        $page = (string) $response->getContent();
        if ($response->getStatusCode() >= 500) {
            preg_match('#<title>(.*?)</title>#s', $page, $title);
            $this->faults[] = "$said: {$response->getStatusCode()} ".trim(html_entity_decode($title[1] ?? ''));

            return false;
        }
        $type = (string) $response->headers->get('Content-Type');
        if ($type === 'application/pdf') {
            $words = (new Process(['pdftotext', '-', '-'], null, null, $page))->mustRun()->getOutput();
            foreach ([...$this->foreignUnits($words), ...$this->rawKeys($words)] as $shown) {
                $this->faults[] = "$said: prints $shown";
            }
        }
        if (!str_contains($type, 'html') || $response->isRedirect()) {
            return false;
        }
        if (preg_match('/<html lang="(\w+)"/', $page, $found) === 1 && $found[1] !== $this->language) {
            $this->faults[] = "$said: is in {$found[1]}";
        }
        foreach ($this->rawKeys(self::shownWords($page)) as $key) {
            $this->faults[] = "$said: shows the key $key";
        }
        // The settings name every unit, and so does what is said of a wrong entry.
        if (preg_match('#^GET (?!/sites?(?:/new)?$)(?!.* is wrong$)#', $said) === 1) {
            foreach ($this->foreignUnits(self::shownWords($page)) as $shown) {
                $this->faults[] = "$said: shows $shown";
            }
        }

        return true;
    }

    /** @return list<string> figures in a unit that the kitchen does not work in */
    private function foreignUnits(string $words): array
    {
        $foreign = match ($this->kitchen) {
            'demo' => '(?:kg|g|g\/kg|cm|mm|m|ml|l|hPa|°C)',
            'metric' => '(?:lb|oz|oz\/lb|ft|in|gal|°F)',
            default => '(?:lb|oz|oz\/lb|ft)',
        };
        preg_match_all('/[\d.,]+ ?'.$foreign.'(?![\w\/])/u', $words, $figures);
        $foreign = $this->kitchen === 'demo' ? '/\b(?:[01]\d|2[0-3]):[0-5]\d\b(?!\s?[ap]m)/' : '/\d [ap]m\b/';
        preg_match_all($foreign, $words, $times);

        return array_values(array_unique(array_merge($figures[0], $times[0])));
    }

    /** @return list<string> what reads like the key of a translation: the first part is one that there is */
    private function rawKeys(string $words): array
    {
        self::$tops ??= implode('|', array_unique(array_map(
            static fn (string $line): string => explode(':', $line)[0],
            array_filter(
                array_merge(...array_map(
                    static fn (string $file): array => (array) file($file),
                    (array) glob(\dirname(__DIR__, 3).'/translations/*.en.yaml'),
                )),
                static fn (mixed $line): bool => \is_string($line) && preg_match('/^[a-z_]+:/', $line) === 1,
            ),
        )));
        $key = '/(?<![\w.@\/-])(?:'.self::$tops.')(?:\.[a-z_0-9]+)+(?:\.[a-z_ ]+)?(?![\w@(\/])/';
        preg_match_all($key, $words, $found);

        return array_values(array_unique(array_filter(
            $found[0],
            static fn (string $one): bool => !str_ends_with($one, '.json') && !str_ends_with($one, '.html'),
        )));
    }

    private static function shownWords(string $page): string
    {
        $shown = (string) preg_replace('#<(script|style|template)\b.*?</\1>#s', '', $page);

        return html_entity_decode(strip_tags(str_replace('<', ' <', $shown)));
    }

    /** @return string|null where a link leads, if it is to be followed from there */
    private function next(string $from, string $to): ?string
    {
        $to = (string) preg_replace('/#.*$/D', '', $to);
        $to = (string) preg_replace('#^http://localhost#', '', $to);
        if ($to === '' || !str_starts_with($to, '/') || str_starts_with($to, '//')) {
            return str_starts_with($to, '?') ? $this->next($from, explode('?', $from)[0].$to) : null;
        }
        if (isset($this->walked[$to])) {
            return $to;
        }
        $route = $this->route($to, 'GET');
        if ($route === null || \in_array($route, self::NOT_WALKED, true)) {
            return null;
        }
        $this->ofRoute[$route] = ($this->ofRoute[$route] ?? 0) + 1;

        $most = self::PAPERS[$route] ?? min(self::OF_DAYS[$route] ?? 100, $this->mostOfARoute);

        return $this->ofRoute[$route] > $most ? null : $to;
    }

    private function route(string $address, string $method): ?string
    {
        $router = self::getContainer()->get(RouterInterface::class);
        self::assertInstanceOf(RouterInterface::class, $router);
        $router->getContext()->setMethod($method);
        try {
            $found = $router->match(explode('?', (string) preg_replace('#^http://localhost#', '', $address))[0]);
        } catch (ExceptionInterface) {
            return null;
        }
        \assert(\is_string($found['_route']));

        return $found['_route'];
    }
}
