<?php

declare(strict_types=1);

namespace Verjuicer\Tests\Core\Assess\Check;

/** Four hours from what is at room temperature to cold; what was hot has gates of its own. */
final class SideCoolingCheckTest extends CheckTestCase
{
    public static function cases(): iterable
    {
        $rule = 'house.side_cooling';
        $side = 'none side';
        yield 'cold as the limit passes' => [$rule, 'none', ['0 prep', '10 cold_hold', '240 41'], '300', $side];
        yield 'a second later' => [$rule, 'caution', ['0 prep', '10 cold_hold', '240:01 41'], '300', $side];
        yield 'a tenth too warm' => [$rule, 'caution', ['0 prep', '10 cold_hold', '240 41.1'], '241', $side];
        yield 'not due yet' => [$rule, 'none', ['0 prep', '10 cold_hold'], '240', $side];
        yield 'due, and never read' => [$rule, 'caution', ['0 prep', '10 cold_hold'], '240:01', $side];
        yield 'served before' => [$rule, 'none', ['0 prep', '200 serve'], '500', $side];
        yield 'it was hot' => [$rule, 'none', ['0 cook', '60 cool', '500 41'], '600', $side];
        yield 'meat' => [$rule, 'none', ['0 prep', '10 cold_hold', '500 41'], '600', 'beef cut'];
    }
}
