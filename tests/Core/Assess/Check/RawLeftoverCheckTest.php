<?php

declare(strict_types=1);

namespace Verjuicer\Tests\Core\Assess\Check;

/** What is left of a brine or a spritz. */
final class RawLeftoverCheckTest extends CheckTestCase
{
    public static function cases(): iterable
    {
        yield 'injected, and the left-over not settled' => [
            'house.raw_leftover',
            'caution',
            ['0 inject', '5 cook'],
            '20',
        ];
        yield 'settled' => [
            'house.raw_leftover',
            'none',
            ['0 inject', '2 action finding=house.raw_leftover', '5 cook'],
            '20',
        ];
        yield 'an action about something else' => [
            'house.raw_leftover',
            'caution',
            ['0 inject', '2 action finding=cook', '5 cook'],
            '20',
        ];
        yield 'spritzed after it was settled' => [
            'house.raw_leftover',
            'caution',
            ['0 inject', '2 action finding=house.raw_leftover', '5 cook', '9 spritz'],
            '20',
        ];
        yield 'settled ahead of the moment' => [
            'house.raw_leftover',
            'caution',
            ['0 inject', '30 action finding=house.raw_leftover'],
            '20',
        ];
        yield 'only seasoned' => ['house.raw_leftover', 'none', ['0 season', '5 cook'], '20'];
    }
}
