<?php

declare(strict_types=1);

namespace Verjuicer\Tests\Core\Assess\Check;

/** Cooling begun again. */
final class CoolingRestartCheckTest extends CheckTestCase
{
    public static function cases(): iterable
    {
        yield 'begun again once' => [
            'house.cooling_restarts',
            'none',
            ['0 cook', '9 cool', '20 reheat for=hot_hold', '30 cool'],
            '40',
        ];
        yield 'begun again twice' => [
            'house.cooling_restarts',
            'caution',
            ['0 cook', '9 cool', '20 reheat for=hot_hold', '30 cool', '40 reheat for=hot_hold'],
            '50',
        ];
    }
}
