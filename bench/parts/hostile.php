<?php

declare(strict_types=1);

// For bench/hostile: forms and addresses of the running application, filled with what nobody means well by.
// php bench/parts/hostile.php http://127.0.0.1:PORT REQUESTS SEED

use Symfony\Component\DomCrawler\Crawler;
use Symfony\Component\DomCrawler\Field\ChoiceFormField;

require dirname(__DIR__, 2).'/vendor/autoload.php';
require __DIR__.'/Visitor.php';

[, $base, $requests, $seed] = $argv + [1 => '', '20000', '1'];
mt_srand((int) $seed);
$visitor = new Visitor($base);
$visitor->logIn('dell');

// What ends the session, or changes who may log in, would end the test.
const NOT = '#^/(logout|me(/|$)|who|people/|devices|setup|welcome|theme|units|login)#';
const HOSTILE = [
    '', ' ', "\0", "a\0b", "\xff\xfe", "\xc3\x28", '0', '-1', '1e99', '999999999999', '1000000000000', '-0.0001',
    '0x1F', 'NaN', '12,5', '9999-12-31', '9999-12-31T23:59:59', '0000-00-00', '2026-02-30', '24:00', '99:99',
    '-99999999', '1 h 99', "'; DROP TABLE event; --", '<script>alert(1)</script>', '{{ 7*7 }}', '${7*7}',
    '../../etc/passwd', '%00', '%s%s%n', '𝕱𝖔𝖔', 'א', "\u{202e}tac", '🐖', '7 203 203 203', '7.9999 203', '999 203',
    '7 203 -999999', '7 99999', '7 -99999 9999-12-31', '7 note x', '01a21730-bec6-7e48-9501-8eb05428a936', 'null',
    'true', '[]', '{"a":1}',
];

$pages = crawl($visitor);
$forms = forms($pages);
printf("%d pages, %d forms\n", count($pages), count($forms));
$broken = [];
$answers = [];
for ($sent = 0; $sent < (int) $requests; ++$sent) {
    [$path, $fields] = mt_rand(0, 3) === 0 ? address(array_keys($pages)) : filled($forms[array_rand($forms)]);
    // Longer addresses PHP's own server does not read at all.
    $path = substr($path, 0, 6000);
    [, , $status] = $visitor->ask($path, $fields, false);
    $answers[$status] = ($answers[$status] ?? 0) + 1;
    if ($status >= 500 || $status === 0) {
        $told = (string) json_encode($fields, \JSON_INVALID_UTF8_SUBSTITUTE);
        $method = $fields === null ? 'GET' : 'POST';
        $broken[] = "$status $method ".substr($path, 0, 200).' '.substr($told, 0, 300);
        echo end($broken), "\n";
    }
}
ksort($answers);
foreach ($answers as $status => $count) {
    printf("%d: %d\n", $status, $count);
}
$left = array_filter(array_keys(crawl($visitor)), static fn (string $path): bool => $visitor->ask($path)[2] >= 500);
printf("%d requests, %d answered 5xx, %d pages left broken\n", $sent, count($broken), count($left));
array_map(static fn (string $path) => print "  $path\n", $left);
exit($broken === [] && $left === [] ? 0 : 1);

/** @return array<string, string> HTML by path: all that is reached from the board and the kitchen */
function crawl(Visitor $visitor): array
{
    $pages = [];
    $ahead = ['/', '/kitchen'];
    while ($ahead !== [] && count($pages) < 250) {
        $path = array_shift($ahead);
        if (isset($pages[$path]) || preg_match(NOT, $path) === 1) {
            continue;
        }
        [$html, , $status] = $visitor->ask($path);
        $pages[$path] = str_contains($html, '<html') ? $html : '';
        if ($status !== 200) {
            continue;
        }
        preg_match_all('#href="(/[^"\#]*)#', $html, $links);
        foreach (array_unique($links[1]) as $link) {
            $link = html_entity_decode($link);
            if (!preg_match('#^/assets|\.(pdf|json|svg)$#', $link)) {
                $ahead[] = $link;
            }
        }
    }

    return $pages;
}

/**
 * @param array<string, string> $pages
 *
 * @return list<array{string, string, array<string, string>}> method, path, fields as they stand
 */
function forms(array $pages): array
{
    $forms = [];
    foreach ($pages as $path => $html) {
        foreach ((new Crawler($html, "http://x$path"))->filter('form') as $node) {
            $form = (new Crawler($node, "http://x$path"))->form();
            $to = parse_url($form->getUri(), \PHP_URL_PATH);
            if (!is_string($to) || preg_match(NOT, $to) === 1) {
                continue;
            }
            $fields = [];
            foreach ($form->all() as $field) {
                $value = $field->getValue();
                if ($field instanceof ChoiceFormField && !is_string($value)) {
                    $value = $field->availableOptionValues()[0] ?? '';
                }
                $fields[$field->getName()] = is_string($value) ? $value : '';
            }
            foreach ((new Crawler($node))->filter('button[name]') as $button) {
                $fields[$button->getAttribute('name')] = $button->getAttribute('value');
            }
            $forms["$to ".implode(',', array_keys($fields))] = [$form->getMethod(), $to, $fields];
        }
    }

    return array_values($forms);
}

/**
 * @param array{string, string, array<string, string>} $form
 *
 * @return array{string, array<string, mixed>|null}
 */
function filled(array $form): array
{
    [$method, $path, $fields] = $form;
    isset($fields['id']) && $fields['id'] = Symfony\Component\Uid\Uuid::v7()->toRfc4122();
    $names = array_diff(array_keys($fields), ['_token', '_csrf_token']);
    foreach ($names === [] ? [] : (array) array_rand(array_flip($names), min(count($names), mt_rand(1, 3))) as $name) {
        $fields[$name] = value();
    }
    if (mt_rand(0, 30) === 0) {
        $fields['_token'] = value();
    }

    return $method === 'GET' ? [$path.'?'.http_build_query($fields), null] : [$path, $fields];
}

/**
 * @param list<string> $paths
 *
 * @return array{string, array<string, mixed>|null}
 */
function address(array $paths): array
{
    $path = $paths[array_rand($paths)];
    $parts = explode('/', (string) parse_url($path, \PHP_URL_PATH));
    $parts[array_rand($parts)] = rawurlencode((string) HOSTILE[array_rand(HOSTILE)]);
    $query = [];
    $names = ['at', 'by', 'key', 'before', 'from', 'to', 'words', 'line', 'back', 'tag', 'what', 'page', 'method'];
    foreach ($names as $name) {
        mt_rand(0, 4) === 0 && $query[$name] = value();
    }
    $address = '/'.ltrim(implode('/', $parts), '/').'?'.http_build_query($query);

    return preg_match(NOT, $address) === 1 ? [$path, null] : [$address, null];
}

/** @return string|array<mixed> */
function value(): string|array
{
    return match (mt_rand(0, 12)) {
        0 => [HOSTILE[array_rand(HOSTILE)]],
        1 => ['a' => ['b' => 'c']],
        2 => str_repeat((string) HOSTILE[array_rand(HOSTILE)], mt_rand(1, 4000)),
        default => (string) HOSTILE[array_rand(HOSTILE)],
    };
}
