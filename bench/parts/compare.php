<?php

declare(strict_types=1);

// For bench/history: two runs of measure-history.php side by side.

[$empty, $history] = array_map(
    static fn (string $file): array => array_column(
        array_map(static fn (string $line): array => explode("\t", $line), file($file, \FILE_IGNORE_NEW_LINES) ?: []),
        1,
        0,
    ),
    array_slice($argv, 1),
);
printf("%-34s %10s %10s %8s\n", '', 'empty', 'history', 'times');
foreach ($history as $name => $ms) {
    printf("%-34s %7.1f ms %7.1f ms %8.2f\n", $name, $empty[$name] ?? \NAN, $ms, $ms / ($empty[$name] ?? \NAN));
}
