<?php

declare(strict_types=1);

namespace Verjuicer\Tests\Core\Assess\Check;

/** The rounds of the house in a hot hold. */
final class HoldRoundCheckTest extends CheckTestCase
{
    public static function cases(): iterable
    {
        yield 'read every two hours' => ['house.hot_hold_check', 'none', ['0 hot_hold', '120 140'], '240'];
        yield 'a second longer' => ['house.hot_hold_check', 'caution', ['0 hot_hold', '120 140'], '240:01'];
    }
}
