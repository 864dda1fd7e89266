<?php

declare(strict_types=1);

// For bench/history: logs in, then measures each thing twenty times in turn. Prints name, median in ms and status as
// tab-separated lines.

require dirname(__DIR__, 2).'/vendor/autoload.php';
require __DIR__.'/Visitor.php';

use Symfony\Component\Uid\Uuid;

$visitor = new Visitor($argv[1]);
$board = $visitor->logIn('mara');
preg_match('#/batches/[0-9a-f-]{36}#', $board, $batch);
$visitor->ask($batch[0]);
preg_match('/name="_token" value="([^"]+)"/', $visitor->ask('/log')[0], $token);
preg_match('#/recall/lot/[0-9a-f-]{36}#', $visitor->ask('/find?words=RR-4471')[0], $recall);
preg_match_all('#/recall/thermometer/[0-9a-f-]{36}#', $visitor->ask('/find')[0], $thermometers);
$today = new DateTimeImmutable('now', new DateTimeZone('America/Denver'));
$things = [
    'board' => '/',
    'batch page' => $batch[0],
    'day sheet, today' => '/days/'.$today->format('Y-m-d'),
    'day sheet, a year ago' => '/days/'.$today->modify('-1 year')->format('Y-m-d'),
    'search: a tag' => '/find?words=18',
    'search: a product' => '/find?words=pork',
    'search: a lot' => '/find?words=RR-4471',
    'search: a person' => '/find?words=Ike',
    'search: a day' => '/find?words='.$today->modify('-1 year')->format('Y-m-d'),
    'search: nothing' => '/find?words=nosuchthing',
    'recall: a lot' => $recall[0],
    'recall: a thermometer, 30 days' => $thermometers[0][0],
    'lot received' => '/receiving',
    'trends, 30 days' => '/trends',
    'what is kept' => '/keeping',
];
$times = [];
for ($round = 0; $round < 24; ++$round) {
    foreach ($things as $name => $path) {
        [, $time, $status] = $visitor->ask($path);
        $status === 200 || ($status === 404 && str_contains($name, 'year')) || exit("$path answered $status\n");
        if ($round >= 4) {
            $times[$name][] = $time;
        }
    }
    [, $time, $status] = $visitor->ask(
        '/log',
        [
            '_token' => $token[1],
            'id' => Uuid::v7()->toRfc4122(),
            'back' => '/',
            'line' => '7 '.(150 + $round / 10),
            'sure' => '1',
        ],
        false,
    );
    $status === 303 || exit("The entry was answered $status.\n");
    if ($round >= 4) {
        $times['logging a reading'][] = $time;
    }
}
foreach ($times as $name => $of) {
    sort($of);
    printf("%s\t%.1f\n", $name, $of[intdiv(count($of), 2)]);
}
