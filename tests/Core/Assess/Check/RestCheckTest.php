<?php

declare(strict_types=1);

namespace Verjuicer\Tests\Core\Assess\Check;

use Verjuicer\Tests\Core\Story;

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
        yield 'straight into the freezer it is none' => ['rest', 'none', self::cooked('0 freeze'), '130'];
        yield 'nor is a rest that ends there' => ['rest', 'none', self::cooked('0 rest', '30 freeze'), '200'];
        yield 'nor one that ends in the walk-in' => ['rest', 'none', self::cooked('0 rest', '30 cold_hold'), '200'];
    }

    public function testNeverSaysThatItStayedHotWhereItCameOffUnderTheLimit(): void
    {
        $rare = ['0 cook set=250', '60 115', '61 rest', '81 cook set=500', '90 140'];
        self::assertSame('rest.came_off_under', self::message($rare, '70'), 'in the pause');
        self::assertSame('rest.came_off_under', self::message($rare, '100'), 'after it');
        $hot = ['0 cook set=250', '60 150', '61 rest', '81 cook set=500'];
        self::assertSame('rest.not_read_yet', self::message($hot, '70'));
        self::assertSame('rest.met', self::message($hot, '100'));
    }

    /** @param list<string> $lines */
    private static function message(array $lines, string $asOf): ?string
    {
        foreach (Story::of(...$lines)->about('beef roast')->assess($asOf)->findings as $finding) {
            if ($finding->rule === 'rest') {
                return $finding->message;
            }
        }

        return null;
    }

    public function testSaysWhatIsLeftToDo(): void
    {
        self::assertSame(['rest.read'], self::options('rest', self::cooked('0 rest'), '120'));
        self::assertSame(['rest.read_now', 'discard'], self::options('rest', self::cooked('0 rest'), '120:01'));
        self::assertSame(
            ['discard'],
            self::options('rest', self::cooked('0 rest', '130 serve'), '140'),
            'nothing can be read any more',
        );
        self::assertSame([], self::options('rest', self::cooked('0 rest', '60 150', '100 serve'), '140'));
    }
}
