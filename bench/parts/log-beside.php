<?php

declare(strict_types=1);

// For bench/importing: logs a reading ten times a second until a file is there; says how long that took.

require dirname(__DIR__, 2).'/vendor/autoload.php';
require __DIR__.'/Visitor.php';

use Symfony\Component\Uid\Uuid;

[, $base, $stop] = $argv;
$visitor = new Visitor($base);
$board = $visitor->logIn('mara');
preg_match('#/batches/[0-9a-f-]{36}#', $board, $batch);
preg_match('#aria-hidden="true">\s*(\d+)\s*</span>#', $visitor->ask($batch[0])[0], $tag);
preg_match('/name="_token" value="([^"]+)"/', $visitor->ask('/log')[0], $token);
$times = [];
for ($until = time() + 600; time() < $until && !is_file($stop);) {
    [, $time, $status] = $visitor->ask(
        '/log',
        [
            '_token' => $token[1],
            'id' => Uuid::v7()->toRfc4122(),
            'back' => '/',
            'line' => $tag[1].' 160',
            'sure' => '1',
        ],
        false,
    );
    $status === 303 || exit("The entry was answered $status.\n");
    $times[] = $time;
    usleep(100_000);
}
sort($times);
printf(
    '%d entries beside it, half within %d ms, 19 of 20 within %d ms, the longest %d ms',
    count($times),
    $times[intdiv(count($times), 2)],
    $times[intdiv(19 * count($times), 20)],
    $times[count($times) - 1],
);
