<?php

declare(strict_types=1);

namespace Verjuicer\Tests\Core\Assess\Check;

/** Resting hot, as far as readings show it. */
final class RestCheckTest extends CheckTestCase
{
    public static function cases(): iterable
    {
        $rest = static fn (string ...$lines): array => self::cooked('0 rest', ...array_values($lines));
        yield 'unread for 2 h, open' => ['rest', 'running', $rest(), '120'];
        yield 'a second longer' => ['rest', 'not_shown', $rest(), '120:01'];
        yield 'read every 2 h' => ['rest', 'met', $rest('120 150', '240 140', '360 serve'), '400'];
        yield 'a gap of a second more' => ['rest', 'not_shown', $rest('120 150', '240:01 140', '300 serve'), '400'];
        yield 'read under the limit: cooling takes over' => ['rest', 'none', $rest('60 134.9'), '70'];
        yield 'prep after the heat is such a rest' => ['rest', 'running', self::cooked('0 prep'), '60'];
        yield 'with a cooling stage it is none' => ['rest', 'none', $rest('10 cool'), '60'];
    }
}
