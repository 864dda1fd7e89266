<?php

declare(strict_types=1);

// For bench/importing: so many records of so many readings, one a line, of a month ago.

[, $records, $readings] = $argv;
for ($record = 0; $record < $records; ++$record) {
    $begun = intdiv(time(), 86_400) * 86_400 - 30 * 86_400 + 60 * $record;
    $at = static fn (int $seconds): string => gmdate('Y-m-d\TH:i:s\Z', $begun + $seconds);
    $events = [
        ['id' => 'cook', 'at' => $at(0), 'by' => 'MR', 'type' => 'cook', 'oven' => 'convection', 'set' => ['f' => 250]],
    ];
    for ($one = 1; $one <= $readings; ++$one) {
        $events[] = [
            'id' => "r$one", 'at' => $at(10 * $one), 'by' => 'MR', 'type' => 'reading',
            'temp' => ['f' => min(203, 60 + intdiv(150 * $one, (int) $readings) + $one % 3)],
            'piece' => 1 + $one % 2, 'spot' => 'core',
        ];
    }
    $events[] = ['id' => 'end', 'at' => $at(10 * ($readings + 1)), 'by' => 'MR', 'type' => 'serve'];
    echo json_encode(
        [
            'format' => 'verjuicer-record/1', 'site' => ['timezone' => 'America/Denver', 'unit' => 'F'],
            'rules' => 'us-food-code-2022',
            'batch' => [
                'code' => "many-$records-$record",
                'product' => ['animal' => 'lamb', 'form' => 'roast', 'integrity' => 'intact', 'pieces' => 2],
                'events' => $events,
            ],
        ],
        \JSON_THROW_ON_ERROR,
    ), "\n";
}
