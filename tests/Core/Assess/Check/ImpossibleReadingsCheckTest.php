<?php

declare(strict_types=1);

namespace Verjuicer\Tests\Core\Assess\Check;

/** Readings of one spot that meat cannot have made. */
final class ImpossibleReadingsCheckTest extends CheckTestCase
{
    public static function cases(): iterable
    {
        yield 'three readings of one second' => [
            'house.impossible_readings',
            'caution',
            ['0 cook', '60 195', '60 134', '60 70'],
            '61',
        ];
        yield 'a fall no meat makes' => ['house.impossible_readings', 'caution', ['0 cook', '60 195', '65 70'], '66'];
        yield 'a fall that meat makes' => ['house.impossible_readings', 'none', ['0 cook', '60 195', '65 160'], '66'];
        yield 'two spots may differ' => [
            'house.impossible_readings',
            'none',
            ['0 cook', '60 195', '60 134 @bone'],
            '61',
        ];
    }
}
