<?php

declare(strict_types=1);

namespace Verjuicer\Tests\Core\Assess\Check;

/** Held cold, once it was. */
final class ColdHoldCheckTest extends CheckTestCase
{
    public static function cases(): iterable
    {
        yield 'raw, at the limit' => ['cold_hold', 'met', ['0 cold_hold', '10 41.0'], '20'];
        yield 'raw, a tenth above' => ['cold_hold', 'broken', ['0 cold_hold', '10 41.1', '20 38'], '30'];
        yield 'raw, unread' => ['cold_hold', 'none', ['0 cold_hold'], '20'];
        yield 'on its way down nothing is asked' => [
            'cold_hold',
            'none',
            self::cooked('0 cold_hold', '10 120', '60 60'),
            '70',
        ];
        yield 'once cold it stays cold' => [
            'cold_hold',
            'broken',
            self::cooked('0 cold_hold', '10 120', '60 41', '90 41.1'),
            '100',
        ];
        yield 'warm again in prep is no cold hold' => [
            'cold_hold',
            'none',
            self::cooked('0 cool', '60 41', '70 prep', '90 50'),
            '100',
        ];
        yield 'another track was cold' => [
            'cold_hold',
            'none',
            self::cooked('0 cold_hold', '10 40 p1', '20 60 p2'),
            '30',
        ];
        yield 'after a thaw it is a plain hold' => [
            'cold_hold',
            'met',
            self::cooked('0 cool', '60 41', '70 freeze', '900 thaw', '1000 cold_hold', '1010 40'),
            '1020',
        ];
    }
}
