<?php

declare(strict_types=1);

// For bench/pages: logs in, then measures 80 requests of each page in turn, as screens ask for them, and 30 each right
// after an entry was kept, so that all of the page is made anew. Prints the median of each.

require dirname(__DIR__, 2).'/vendor/autoload.php';
require __DIR__.'/Visitor.php';

use Symfony\Component\Uid\Uuid;

$visitor = new Visitor($argv[1]);
$ask = $visitor->ask(...);
$board = $visitor->logIn('mara');
preg_match('#/batches/[0-9a-f-]{36}#', $board, $batch);
$lanes = substr_count($board, 'class="tag-link');
preg_match('#aria-hidden="true">\s*(\d+)\s*</span>#', $ask($batch[0])[0], $tag);
$pages = [
    'empty page' => '/empty',
    'empty page that knows who is logged in' => '/empty-user',
    "board ($lanes batches)" => '/',
    'batch page (200 events)' => $batch[0],
];
$times = [];
$measure = static function (string $name, string $path, bool $counts) use ($ask, &$times): void {
    [, $time, $status] = $ask($path);
    $status === 200 || exit("$path answered $status\n");
    if ($counts) {
        $times[$name][] = $time;
    }
};
for ($round = 0; $round < 90; ++$round) {
    foreach ($pages as $name => $path) {
        $measure($name, $path, $round >= 10);
    }
}
preg_match('/name="_token" value="([^"]+)"/', $ask('/log')[0], $token);
for ($round = 0; $round < 30; ++$round) {
    foreach (array_slice($pages, 2) as $name => $path) {
        [$page, , $status] = $ask(
            '/log',
            [
                '_token' => $token[1],
                'id' => Uuid::v7()->toRfc4122(),
                'back' => '/',
                'line' => $tag[1].' 60',
                'sure' => '1',
            ],
            false,
        );
        $status === 303 || exit("The entry was answered $status.\n");
        $measure($name.', after an entry', $path, true);
    }
}
printf("%-40s %10s %12s %18s\n", '', 'median', 'times empty', 'times with a user');
$bases = [];
foreach ($times as $name => $of) {
    sort($of);
    $median = $of[intdiv(count($of), 2)];
    $bases[] = $median;
    printf("%-40s %7.1f ms %12.1f %18.1f\n", $name, $median, $median / $bases[0], $median / ($bases[1] ?? \NAN));
}
