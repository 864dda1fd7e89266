<?php

declare(strict_types=1);

namespace Verjuicer\Tests\Core\Assess\Check;

/** Put together with another batch. */
final class MixedCheckTest extends CheckTestCase
{
    public static function cases(): iterable
    {
        yield 'put together' => ['house.mixed', 'caution', ['0 cold_hold', '9 note mixed_from=1124-3'], '20'];
    }
}
