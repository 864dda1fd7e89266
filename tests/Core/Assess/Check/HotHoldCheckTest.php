<?php

declare(strict_types=1);

namespace Verjuicer\Tests\Core\Assess\Check;

/** Held hot, by readings close enough together. */
final class HotHoldCheckTest extends CheckTestCase
{
    public static function cases(): iterable
    {
        $hold = static fn (string ...$lines): array => self::cooked('0 hot_hold', ...array_values($lines));
        foreach (['135.0' => 'met', '134.9' => 'broken', '57.0c' => 'met', '56.9c' => 'broken'] as $temp => $verdict) {
            yield "held at $temp" => ['hot_hold', $verdict, $hold("10 $temp", '60 serve'), '60'];
        }
        yield 'not read for 4 h, open' => ['hot_hold', 'running', $hold(), '240'];
        yield 'a second longer' => ['hot_hold', 'not_shown', $hold(), '240:01'];
        yield 'never read, over' => ['hot_hold', 'not_shown', $hold('10 serve'), '60'];
        yield '4 h to the first, between and to the end' => [
            'hot_hold',
            'met',
            $hold('240 140', '480 140', '720 serve'),
            '720',
        ];
        yield 'a second more to the first' => ['hot_hold', 'not_shown', $hold('240:01 140', '300 serve'), '300'];
        yield 'a second more to the end' => ['hot_hold', 'not_shown', $hold('10 140', '250:01 serve'), '300'];
        yield 'tracks together show the hold' => [
            'hot_hold',
            'met',
            $hold('100 140 p1', '300 140 p2', '480 serve'),
            '480',
            'beef cut 2pieces',
        ];
        $roast = static fn (string $reading, string ...$more): array => [
            '-200 cook oven=still set=350',
            '-100 140',
            '-85 140',
            '0 hot_hold',
            "10 $reading",
            '60 serve',
            ...array_values($more),
        ];
        yield 'a roast by the table at 130' => ['hot_hold', 'met', $roast('130.0'), '60', 'lamb roast 3kg'];
        yield 'a tenth under' => ['hot_hold', 'broken', $roast('129.9'), '60', 'lamb roast 3kg'];
        yield 'a roast at 54 C' => ['hot_hold', 'met', $roast('54.0c'), '60', 'lamb roast 3kg'];
        yield 'injected anywhere in the record, even after' => [
            'hot_hold',
            'broken',
            $roast('130.0', '61 inject'),
            '70',
            'lamb roast 3kg',
        ];
        yield 'not a roast' => ['hot_hold', 'broken', $roast('130.0'), '60', 'lamb cut 3kg'];
        yield 'a roast whose cook was not shown' => [
            'hot_hold',
            'broken',
            ['-200 cook oven=still set=350', '-100 140', '0 hot_hold', '10 130', '60 serve'],
            '60',
            'lamb roast 3kg',
        ];
        yield 'a roast outside the oven conditions' => [
            'hot_hold',
            'broken',
            ['-200 cook oven=still set=225', '-100 160', '0 hot_hold', '10 130', '60 serve'],
            '60',
            'lamb roast 3kg',
        ];
        yield 'each hold is judged' => [
            'hot_hold',
            'broken',
            self::cooked(
                '0 hot_hold',
                '10 134',
                '20 reheat for=hot_hold',
                '40 166',
                '50 hot_hold',
                '60 150',
                '70 serve',
            ),
            '80',
        ];
    }

    public function testReheatingIsOfferedForTwoHoursBelowAtTheMost(): void
    {
        $hold = self::cooked('0 hot_hold', '10 140', '20 130');
        self::assertSame(
            ['hot_hold.reheat', 'discard'],
            self::options('hot_hold', $hold, '130'),
            'two hours since it was last hot',
        );
        self::assertSame(['discard'], self::options('hot_hold', $hold, '130:01'), 'a second longer');
        self::assertSame(
            ['hot_hold.reheat', 'discard'],
            self::options('hot_hold', [...$hold, '60 150'], '200'),
            'it was hot again in time',
        );
        self::assertSame(
            ['hot_hold.read_now', 'discard'],
            self::options('hot_hold', self::cooked('0 hot_hold'), '240:01'),
        );
    }
}
