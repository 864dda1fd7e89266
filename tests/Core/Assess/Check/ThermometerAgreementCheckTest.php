<?php

declare(strict_types=1);

namespace Verjuicer\Tests\Core\Assess\Check;

/** Two thermometers on one spot. */
final class ThermometerAgreementCheckTest extends CheckTestCase
{
    public static function cases(): iterable
    {
        yield 'four degrees apart' => [
            'house.thermometers_disagree',
            'none',
            ['0 cook', '10 140 T1', '15 144 T2'],
            '20',
        ];
        yield 'a tenth more' => [
            'house.thermometers_disagree',
            'caution',
            ['0 cook', '10 140 T1', '15 144.1 T2'],
            '20',
        ];
        yield 'six minutes apart' => [
            'house.thermometers_disagree',
            'none',
            ['0 cook', '10 140 T1', '16 150 T2'],
            '20',
        ];
        yield 'another spot' => [
            'house.thermometers_disagree',
            'none',
            ['0 cook', '10 140 T1', '11 150 @flat T2'],
            '20',
        ];
    }
}
