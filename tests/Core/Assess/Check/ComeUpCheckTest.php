<?php

declare(strict_types=1);

namespace Verjuicer\Tests\Core\Assess\Check;

/** How long it takes to be hot. */
final class ComeUpCheckTest extends CheckTestCase
{
    public static function cases(): iterable
    {
        yield 'come-up in six hours' => ['house.come_up', 'none', ['0 cook', '360 134', '361 135'], '400'];
        yield 'shown to take a second longer' => [
            'house.come_up',
            'caution',
            ['0 cook', '360:01 134', '361 135'],
            '400',
        ];
        yield 'first read late says nothing' => ['house.come_up', 'none', ['0 cook', '540 203'], '600'];
        yield 'in four where injected' => [
            'house.come_up',
            'caution',
            ['-5 inject', '0 cook', '240:01 134', '241 135'],
            '400',
        ];
        yield 'not there yet' => ['house.come_up', 'caution', ['0 cook', '360:01 120'], '361'];
        yield 'not read since' => ['house.come_up', 'none', ['0 cook', '100 120'], '400'];
    }
}
