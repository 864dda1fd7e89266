<?php

declare(strict_types=1);

namespace Verjuicer\Tests\Core\Assess\Check;

/** Out of refrigeration before the cook. */
final class PrepOutCheckTest extends CheckTestCase
{
    public static function cases(): iterable
    {
        yield 'an hour out for prep' => ['house.prep_out', 'none', ['0 prep'], '60'];
        yield 'a second more' => ['house.prep_out', 'caution', ['0 prep'], '60:01'];
        yield 'prep after the cook is no such thing' => ['house.prep_out', 'none', ['-60 cook', '0 prep'], '90'];
    }
}
