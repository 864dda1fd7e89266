<?php

declare(strict_types=1);

namespace Verjuicer\Tests\Core\Assess\Check;

/** Reheated on what only holds hot. */
final class SteamTableReheatCheckTest extends CheckTestCase
{
    public static function cases(): iterable
    {
        yield 'reheated on a steam table' => [
            'house.steam_table_reheat',
            'caution',
            ['0 reheat for=hot_hold on=steam_table'],
            '20',
        ];
        yield 'in an oven' => ['house.steam_table_reheat', 'none', ['0 reheat for=hot_hold on=oven'], '20'];
    }
}
