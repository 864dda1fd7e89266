<?php

declare(strict_types=1);

namespace Verjuicer\Tests\Core\Assess\Check;

/** Thawing in the cold, and under running water. */
final class ThawCheckTest extends CheckTestCase
{
    public static function cases(): iterable
    {
        yield 'thawed in the cold' => ['thaw', 'met', ['0 thaw', '60 41', '600 prep'], '700'];
        yield 'thawing in the cold' => ['thaw', 'running', ['0 thaw', '60 41'], '700'];
        yield 'thawed a tenth too warm' => [
            'thaw',
            'broken',
            ['0 thaw method=refrigerated', '60 41.1', '600 prep'],
            '700',
        ];
        yield 'thawed unread' => ['thaw', 'none', ['0 thaw', '600 prep'], '700'];
        yield 'in water of 70' => ['thaw', 'met', ['0 thaw method=running_water', '60 70', '300 prep'], '700'];
        yield 'in water a tenth warmer' => [
            'thaw',
            'broken',
            ['0 thaw method=running_water', '60 70.1', '300 prep'],
            '700',
        ];
        yield 'in water above 41 for 4 h' => [
            'thaw',
            'met',
            ['0 thaw method=running_water', '60 41.1', '300 prep'],
            '700',
        ];
        yield 'a second longer' => ['thaw', 'broken', ['0 thaw method=running_water', '60 41.1', '300:01 prep'], '700'];
        yield 'in water for hours, and cold' => [
            'thaw',
            'met',
            ['0 thaw method=running_water', '60 41', '900 prep'],
            '1000',
        ];
        yield 'still in water in time' => ['thaw', 'running', ['0 thaw method=running_water', '60 50'], '300'];
        yield 'still in water too long' => ['thaw', 'broken', ['0 thaw method=running_water', '60 50'], '300:01'];
        yield 'ready to eat in water at 41' => [
            'thaw',
            'met',
            ['0 thaw method=running_water', '60 41', '90 prep'],
            '100',
            'pork rte_commercial',
        ];
        yield 'ready to eat in water a tenth warmer' => [
            'thaw',
            'broken',
            ['0 thaw method=running_water', '60 41.1', '90 prep'],
            '100',
            'pork rte_commercial',
        ];
        yield 'cooked here before it is thawed in water' => [
            'thaw',
            'broken',
            [
                '-900 cook',
                '-600 170',
                '-500 freeze',
                '0 thaw method=running_water',
                '60 41.1',
                '90 reheat for=hot_hold',
            ],
            '100',
        ];
        yield 'cooked only afterwards' => [
            'thaw',
            'met',
            ['0 thaw method=running_water', '60 41.1', '90 cook'],
            '100',
        ];
        yield 'a word of the house is not running water' => [
            'thaw',
            'broken',
            ['0 thaw method=sink', '60 50', '90 prep'],
            '100',
        ];
    }
}
