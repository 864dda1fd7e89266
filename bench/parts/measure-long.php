<?php

declare(strict_types=1);

// For bench/long: logs in, then enters readings into each batch in turn and opens its page, right after and again.
// Prints the medians.

require dirname(__DIR__, 2).'/vendor/autoload.php';
require __DIR__.'/Visitor.php';

use Symfony\Component\Uid\Uuid;

const ROUNDS = 24;

$visitor = new Visitor($argv[1]);
$board = $visitor->logIn('mara');
$batches = [];
foreach ([701 => 20, 702 => 2_000, 703 => 20_000] as $tag => $readings) {
    preg_match('#href="(/batches/[0-9a-f-]{36})"(?:(?!</a>).)*?>\s*'.$tag.'\s*<#s', $board, $path) === 1
        || exit("Batch $tag is not on the board.\n");
    $batches[$readings] = [$tag, $path[1]];
}
preg_match('/name="_token" value="([^"]+)"/', $visitor->ask('/log')[0], $token);
$times = [];
$bytes = [];
for ($round = -4; $round < ROUNDS; ++$round) {
    foreach ($batches as $readings => [$tag, $path]) {
        [, $entry, $status] = $visitor->ask(
            '/log',
            [
                '_token' => $token[1],
                'id' => Uuid::v7()->toRfc4122(),
                'back' => '/',
                'line' => "$tag.1 19".abs($round) % 10,
                'sure' => '1',
            ],
            false,
        );
        $status === 303 || exit("The entry into $tag was answered $status.\n");
        [$page, $after, $status] = $visitor->ask($path);
        $status === 200 || exit("The page of $tag was answered $status.\n");
        [, $again] = $visitor->ask($path);
        $bytes[$readings] = strlen($page);
        if ($round >= 0) {
            foreach (['entry' => $entry, 'after' => $after, 'again' => $again] as $what => $ms) {
                $times[$readings][$what][] = $ms;
            }
        }
    }
}
$median = static function (array $of): float {
    sort($of);

    return $of[intdiv(count($of), 2)];
};
printf("%-10s %12s %18s %16s %12s\n", 'readings', 'an entry', 'its page after it', 'its page again', 'page');
foreach ($times as $readings => $of) {
    printf(
        "%-10s %9.1f ms %15.1f ms %13.1f ms %9.1f KB\n",
        number_format($readings),
        $median($of['entry']),
        $median($of['after']),
        $median($of['again']),
        $bytes[$readings] / 1000,
    );
}
printf(
    "An entry into 20,000 readings takes %.2f times one into 20.\n",
    $median($times[20_000]['entry']) / $median($times[20]['entry']),
);
