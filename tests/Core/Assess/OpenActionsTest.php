<?php

declare(strict_types=1);

namespace Verjuicer\Tests\Core\Assess;

use PHPUnit\Framework\Attributes\DataProvider;
use PHPUnit\Framework\TestCase;
use Verjuicer\Core\Assess\OpenActions;
use Verjuicer\Tests\Core\Story;

/**
 * Nothing is silently resolved: what is broken or not shown stays open until somebody says what was done, and opens
 * again with new evidence.
 */
final class OpenActionsTest extends TestCase
{
    private const DIP = ['0 cook', '100 170', '110 hot_hold', '120 150', '200 133'];

    /**
     * @param list<string> $open
     * @param list<string> $lines
     */
    #[DataProvider('records')]
    public function testNamesWhatNobodyHasSettled(array $open, array $lines, string $asOf = '300'): void
    {
        self::assertSame($open, OpenActions::of(Story::of(...$lines)->assess($asOf)));
    }

    /** @return iterable<string, array{0: list<string>, 1: list<string>, 2?: string}> */
    public static function records(): iterable
    {
        yield 'all is well' => [[], ['0 cook', '100 170', '110 hot_hold', '120 150']];
        yield 'running is not open' => [[], ['0 cook', '100 120']];
        yield 'a dip' => [['hot_hold'], self::DIP];
        yield 'settled' => [[], [...self::DIP, '210 action finding=hot_hold text=reheated']];
        yield 'an action about something else' => [['hot_hold'], [...self::DIP, '210 action finding=cook text=x']];
        yield 'an action before it' => [['hot_hold'], [...self::DIP, '190 action finding=hot_hold text=x']];
        yield 'taken back' => [
            ['hot_hold'],
            [...self::DIP, '210 action finding=hot_hold text=x', '211 void replaces=e5'],
        ];
        yield 'a second dip after it opens it again' => [
            ['hot_hold'],
            [...self::DIP, '210 action finding=hot_hold text=x', '220 hot_hold', '230 131'],
        ];
        yield 'the worst first' => [['cook', 'receiving'], ['-10 received', '0 cook', '100 130', '110 serve']];
        yield 'an ended batch keeps asking' => [['hot_hold'], [...self::DIP, '220 serve'], '90000'];
        yield 'all of it discarded settles what was before' => [[], [...self::DIP, '220 discard'], '90000'];
        yield 'undercooked and discarded' => [[], ['0 cook', '100 130', '110 rest', '120 discard']];
        yield 'donated is eaten' => [['hot_hold'], [...self::DIP, '220 discard why=donated']];
        yield 'a part of it was served before' => [
            ['hot_hold'],
            [...self::DIP, '210 note step=served_part', '220 discard'],
        ];
        yield 'served, and only then thrown away' => [['hot_hold'], [...self::DIP, '210 serve', '220 discard']];
        yield 'the discard was taken back' => [['hot_hold'], [...self::DIP, '220 discard', '221 void replaces=e5']];
        yield 'cautions ask for nothing' => [[], ['0 prep'], '300'];
    }
}
