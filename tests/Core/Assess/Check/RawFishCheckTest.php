<?php

declare(strict_types=1);

namespace Verjuicer\Tests\Core\Assess\Check;

/** Fish that is served undercooked by intent was frozen for its parasites. */
final class RawFishCheckTest extends CheckTestCase
{
    public static function cases(): iterable
    {
        $rule = 'house.raw_fish';
        yield 'never frozen' => [$rule, 'caution', ['0 prep', '60 serve'], '90', 'fish cut advisory'];
        yield 'frozen here' => [$rule, 'none', ['0 freeze', '9 thaw', '60 serve'], '90', 'fish cut advisory'];
        yield 'came frozen' => [$rule, 'none', ['0 received frozen=true', '60 serve'], '90', 'fish cut advisory'];
        yield 'not served yet' => [$rule, 'none', ['0 prep'], '90', 'fish cut advisory'];
        yield 'cooked fish' => [$rule, 'none', ['0 prep', '60 serve'], '90', 'fish cut'];
        yield 'no fish' => [$rule, 'none', ['0 prep', '60 serve'], '90', 'beef cut advisory'];
    }
}
