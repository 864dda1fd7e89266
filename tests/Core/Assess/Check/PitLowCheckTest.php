<?php

declare(strict_types=1);

namespace Verjuicer\Tests\Core\Assess\Check;

/** House limit: a pit too far under its set point, for too long. */
final class PitLowCheckTest extends CheckTestCase
{
    public static function cases(): iterable
    {
        $rule = 'house.pit_low';
        $cook = static fn (string ...$lines): array => ['0 cook set=250', ...array_values($lines)];
        yield '25 °F under is allowed' => [$rule, 'none', $cook('10 pit_reading temp=225'), '100'];
        yield 'a tenth more, for 30 min' => [$rule, 'caution', $cook('10 pit_reading temp=224.9'), '40'];
        yield 'a second less' => [$rule, 'none', $cook('10 pit_reading temp=224.9'), '39:59'];
        yield '40 °F under for 80 min' => [
            $rule,
            'caution',
            $cook('10 pit_reading temp=210', '50 pit_reading temp=212'),
            '90',
        ];
        yield 'back at its set point' => [
            $rule,
            'none',
            $cook('10 pit_reading temp=210', '50 pit_reading temp=245'),
            '90',
        ];
        yield 'too hot is another matter' => [$rule, 'none', $cook('10 pit_reading temp=300'), '90'];
        yield 'turned down since' => [$rule, 'none', $cook('10 pit_reading temp=210', '20 pit_set set=210'), '90'];
        yield 'off the heat' => [$rule, 'none', $cook('10 pit_reading temp=210', '60 rest'), '90'];
        yield 'no set point' => [$rule, 'none', ['0 cook', '10 pit_reading temp=150'], '90'];
    }
}
