<?php

declare(strict_types=1);

namespace Verjuicer\Tests\Core\Assess\Check;

/** Out by the clock, without heat or cold. */
final class TimeControlCheckTest extends CheckTestCase
{
    public static function cases(): iterable
    {
        $out = static fn (string $plan, string ...$lines): array => [
            '-60 hot_hold',
            ...array_values($lines),
            "0 time_control plan=$plan",
        ];
        $readings = [
            '-30 135.0' => 'running',
            '-30:01 135' => 'not_shown',
            '-10 134.9' => 'broken',
            '-10 57.0c' => 'running',
        ];
        foreach ($readings as $reading => $verdict) {
            yield "hot start, $reading" => [
                'time_control',
                $verdict,
                $out('hot_4h', str_replace('-30:01', '-31', $reading)),
                '60',
            ];
        }
        yield 'read five minutes after' => ['time_control', 'running', [...$out('hot_4h'), '5 140'], '60'];
        yield 'read a second later is no start' => ['time_control', 'not_shown', [...$out('hot_4h'), '5:01 140'], '60'];
        yield 'the last reading around the start decides' => [
            'time_control',
            'broken',
            [...$out('hot_4h', '-10 140'), '2 134'],
            '60',
        ];
        yield 'unread within its five minutes' => ['time_control', 'running', $out('hot_4h'), '5'];
        yield 'unread a second later' => ['time_control', 'not_shown', $out('hot_4h'), '5:01'];
        yield 'cold start at 41' => ['time_control', 'running', $out('cold_4h', '-5 41.0'), '60'];
        yield 'cold start above' => ['time_control', 'broken', $out('cold_4h', '-5 41.1'), '60'];
        yield '4 h to the second' => ['time_control', 'met', [...$out('hot_4h', '-5 140'), '240 discard'], '300'];
        yield 'a second longer' => ['time_control', 'broken', [...$out('hot_4h', '-5 140'), '240:01 discard'], '300'];
        yield 'still out' => ['time_control', 'broken', $out('hot_4h', '-5 140'), '240:01'];
        yield '6 h, read' => ['time_control', 'met', [...$out('cold_6h', '-5 40'), '200 70.0', '360 serve'], '400'];
        yield '6 h, over 70' => ['time_control', 'broken', [...$out('cold_6h', '-5 40'), '200 70.1'], '210'];
        yield '6 h, unread after 4' => ['time_control', 'not_shown', $out('cold_6h', '-5 40'), '240:01'];
        yield '6 h, unread at 4' => ['time_control', 'running', $out('cold_6h', '-5 40'), '240'];
        yield 'returned to the heat' => ['time_control', 'broken', [...$out('hot_4h', '-5 140'), '60 hot_hold'], '61'];
        yield 'closed' => ['time_control', 'met', [...$out('hot_4h', '-5 140'), '60 close'], '61'];
    }
}
