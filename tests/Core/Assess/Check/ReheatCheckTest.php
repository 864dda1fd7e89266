<?php

declare(strict_types=1);

namespace Verjuicer\Tests\Core\Assess\Check;

/** Reheated for hot holding, in time. */
final class ReheatCheckTest extends CheckTestCase
{
    public static function cases(): iterable
    {
        $reheat = static fn (string ...$lines): array => [
            '-60 cold_hold',
            '-10 40',
            '0 reheat for=hot_hold',
            ...array_values($lines),
        ];
        yield 'in time to the second' => ['reheat', 'met', $reheat('120 165.0'), '130'];
        yield 'a second late, perhaps' => ['reheat', 'not_shown', $reheat('120:01 165'), '130'];
        yield 'a tenth short' => ['reheat', 'running', $reheat('110 164.9'), '120'];
        yield 'in C it is 74' => ['reheat', 'met', $reheat('110 74.0c'), '120'];
        yield 'shown late' => ['reheat', 'broken', $reheat('1 50', '121:01 160', '125 165'), '130'];
        yield 'unread and open' => ['reheat', 'running', $reheat(), '120'];
        yield 'unread too long' => ['reheat', 'not_shown', $reheat(), '120:01'];
        yield 'unread and over' => ['reheat', 'not_shown', $reheat('10 hot_hold'), '20'];
        yield 'counts from the last cold reading' => ['reheat', 'met', $reheat('30 41', '40 60', '150 165'), '160'];
        yield 'not reached, thrown away in time' => ['reheat', 'stopped', $reheat('60 120', '100 discard'), '200'];
        yield 'not reached, thrown away late' => ['reheat', 'not_shown', $reheat('60 120', '121 discard'), '200'];
        yield 'not reached, held anyway' => ['reheat', 'not_shown', $reheat('60 120', '100 hot_hold'), '110'];
        yield 'not reached after two warm hours' => ['reheat', 'broken', $reheat('1 50', '121:01 160'), '125'];
        yield 'commercial needs 135 only' => ['reheat', 'met', $reheat('60 135'), '70', 'pork rte_commercial'];
        yield 'for service at once there is no target' => ['reheat', 'none', ['0 reheat for=immediate', '10 60'], '20'];
        yield 'a cold reading in it begins it anew' => [
            'reheat',
            'running',
            ['-60 cold_hold', '-10 40', '0 reheat for=hot_hold', '60 40'],
            '150',
        ];
    }

    public function testSaysWhatIsLeftToDo(): void
    {
        $reheat = ['-60 cold_hold', '-10 40', '0 reheat for=hot_hold'];
        self::assertSame(['reheat.read'], self::options('reheat', $reheat, '10'));
        self::assertSame(['reheat.faster'], self::options('reheat', [...$reheat, '60 120'], '70'));
        self::assertContains('discard', self::options('reheat', [...$reheat, '60 120', '100 hot_hold'], '110'));
    }
}
