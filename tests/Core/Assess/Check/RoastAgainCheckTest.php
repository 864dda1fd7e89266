<?php

declare(strict_types=1);

namespace Verjuicer\Tests\Core\Assess\Check;

/** A microwave asks for more; the unsliced rest of a roast for less. */
final class RoastAgainCheckTest extends CheckTestCase
{
    public static function cases(): iterable
    {
        $micro = 'house.microwave';
        yield 'in a microwave' => [$micro, 'caution', self::cooked('0 reheat for=hot_hold on=microwave'), '20'];
        yield 'in an oven' => [$micro, 'none', self::cooked('0 reheat for=hot_hold on=oven'), '20'];
        $rule = 'house.roast_again';
        $again = static fn (string ...$lines): array => self::cooked('0 cold_hold', ...$lines);
        $low = $again('60 reheat for=hot_hold', '90 145', '99 hot_hold');
        yield 'an unsliced roast to 145' => [$rule, 'caution', $low, '120', 'beef roast 3kg'];
        yield 'while it is heated' => [$rule, 'none', $low, '95', 'beef roast 3kg'];
        yield 'a cut' => [$rule, 'none', $low, '120', 'beef cut'];
        yield 'a roast to 165' => [
            $rule,
            'none',
            $again('60 reheat for=hot_hold', '90 165', '99 hot_hold'),
            '120',
            'beef roast 3kg',
        ];
        yield 'a sliced roast' => [
            $rule,
            'none',
            $again('10 slice', '60 reheat for=hot_hold', '90 145', '99 hot_hold'),
            '120',
            'beef roast 3kg',
        ];
        yield 'never read' => [
            $rule,
            'none',
            $again('60 reheat for=hot_hold', '99 hot_hold'),
            '120',
            'beef roast 3kg',
        ];
    }
}
