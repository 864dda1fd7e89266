<?php

declare(strict_types=1);

// For bench/keeping: takes records of growing size in through verjuicer:import, five each, and prints the median of
// each less what the same command takes for a file it only looks at.

$root = dirname(__DIR__, 2);
$record = static function (string $code, int $readings): string {
    $at = static fn (int $minute): string => gmdate('Y-m-d\TH:i:s\Z', time() - 86_400 * 20 + 60 * $minute);
    $events = [
        ['id' => 'cook', 'at' => $at(0), 'by' => 'MR', 'type' => 'cook', 'oven' => 'convection', 'set' => ['f' => 250]],
    ];
    for ($one = 1; $one <= $readings; ++$one) {
        $events[] = [
            'id' => "r$one",
            'at' => $at($one),
            'by' => 'MR',
            'type' => 'reading',
            'temp' => ['f' => 170 + ($one % 3)],
            'spot' => 'core',
        ];
    }

    return json_encode(
        [
            'format' => 'verjuicer-record/1',
            'site' => ['timezone' => 'America/Denver', 'unit' => 'F'],
            'rules' => 'us-food-code-2022',
            'batch' => [
                'code' => $code,
                'product' => ['animal' => 'lamb', 'form' => 'roast', 'integrity' => 'intact', 'pieces' => 1],
                'events' => $events,
            ],
        ],
        \JSON_THROW_ON_ERROR,
    );
};
$take = static function (string $text, string ...$options) use ($root): float {
    $file = tempnam(sys_get_temp_dir(), 'keeping');
    file_put_contents($file, $text);
    $time = hrtime(true);
    $process = proc_open(
        [\PHP_BINARY, 'bin/console', 'verjuicer:import', $file, '--login=dell', ...$options],
        [1 => ['pipe', 'w']],
        $pipes,
        $root,
    );
    $said = stream_get_contents($pipes[1]);
    proc_close($process) === 0 || exit("It was not taken in: $said\n");
    unlink($file);

    return (hrtime(true) - $time) / 1e6;
};
$median = static function (array $times): float {
    sort($times);

    return $times[intdiv(count($times), 2)];
};
$take($record('warm', 1));
$start = $median(array_map(static fn (int $run): float => $take($record("look-$run", 1), '--preview'), range(1, 5)));
printf("%10s %18s\n", 'readings', 'taken in, ms');
foreach ([1, 400, 4_000] as $readings) {
    printf(
        "%10d %18.0f\n",
        $readings,
        $median(array_map(static fn (int $run): float => $take($record("b-$readings-$run", $readings)), range(1, 5)))
            - $start,
    );
}
printf("The start of the command, %.0f ms, is taken off.\n", $start);
