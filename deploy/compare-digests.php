<?php

declare(strict_types=1);

// What was restored against what there is: digests of `verjuicer:digests`, of the kitchen before and of the copy after.
// usage: compare-digests.php BEFORE AFTER same|earlier

[, $before, $after, $how] = $argv;
/** @var array{sites: list<array{site: string, position: int, digest: string}>|null, kinds: array<string, int>|null, newest: string|null} $before */
$before = json_decode($before, true, flags: \JSON_THROW_ON_ERROR);
/** @var array{sites: list<array{site: string, position: int, digest: string}>|null, kinds: array<string, int>|null, newest: string|null} $after */
$after = json_decode($after, true, flags: \JSON_THROW_ON_ERROR);
$found = array_column($after['sites'] ?? [], null, 'site');
$wrong = [];
foreach ($before['sites'] ?? [] as $site) {
    $there = $found[$site['site']] ?? null;
    if ($how === 'same' && ($there === null || $there['position'] < $site['position'])) {
        $wrong[] = sprintf('site %s ends at link %d, not at %d', $site['site'], $there['position'] ?? 0, $site['position']);
    } elseif ($there !== null && $there['position'] === $site['position'] && $there['digest'] !== $site['digest']) {
        $wrong[] = sprintf('site %s has another digest at link %d', $site['site'], $site['position']);
    } elseif ($how === 'earlier' && $there !== null && $there['position'] > $site['position']) {
        $wrong[] = sprintf('site %s has more than there is', $site['site']);
    }
}
foreach ($how === 'same' ? $before['kinds'] ?? [] : [] as $kind => $count) {
    if (($after['kinds'][$kind] ?? 0) < $count) {
        $wrong[] = sprintf('%d of %d rows of the kind %s', $after['kinds'][$kind] ?? 0, $count, $kind);
    }
}
if ($wrong !== []) {
    echo 'What was restored is not all there is: '.implode('; ', $wrong).'.';
    exit(1);
}
printf(
    '%d links of %d sites are there; the newest is of %s.',
    array_sum($after['kinds'] ?? []),
    count($found),
    $after['newest'] ?? 'no time',
);
