<?php

declare(strict_types=1);

namespace Verjuicer\Tests\Core\Assess;

use PHPUnit\Framework\Attributes\DataProvider;
use PHPUnit\Framework\TestCase;
use Verjuicer\Core\Assess\Evidence\Timeline;
use Verjuicer\Core\Assess\Reminder;
use Verjuicer\Core\Assess\Reminders;
use Verjuicer\Tests\Core\Story;

/** What the crew wants to be told of: by the clock, by temperature, by eye; done when it was done. */
final class RemindersTest extends TestCase
{
    /**
     * @param list<string> $expected "text minute", or "text –" where it waits
     * @param list<string> $lines
     */
    #[DataProvider('stories')]
    public function testTellsWhatWaits(array $expected, array $lines, string $asOf = '300'): void
    {
        $timeline = Timeline::of(Story::of(...$lines)->record(), Story::at($asOf));
        self::assertSame(
            $expected,
            array_map(
                static fn (Reminder $one): string => $one->text
                    .' '
                    .($one->due === null ? '–' : (string) intdiv($one->due->epoch - Story::at('0')->epoch, 60)),
                Reminders::of($timeline),
            ),
        );
    }

    /** @return iterable<string, array{0: list<string>, 1: list<string>, 2?: string}> */
    public static function stories(): iterable
    {
        $every = 'note step=reminder text=spritz does=spritz every_minutes=30';
        $at = 'note step=reminder text=wrap does=wrap temp=165';
        $in = 'note step=reminder text=sauce does=sauce in_minutes=120';
        yield 'every so often, from the heat on' => [['spritz 40'], ['0 prep', "1 $every", '10 cook']];
        yield 'and from when it was done' => [['spritz 85'], ['0 prep', "1 $every", '10 cook', '55 spritz']];
        yield 'not before the heat' => [[], ['0 prep', "1 $every"]];
        yield 'nor after it' => [[], ['0 prep', "1 $every", '10 cook', '200 rest']];
        yield 'from a temperature on' => [['wrap 90'], ['0 cook', "1 $at", '60 150', '90 165', '100 170']];
        yield 'which is not there yet' => [['wrap –'], ['0 cook', "1 $at", '60 164.9']];
        yield 'done, and so gone' => [[], ['0 cook', "1 $at", '60 166', '70 wrap']];
        yield 'so long into the cook' => [['sauce 130'], ['0 prep', "1 $in", '10 cook']];
        yield 'or from when it was written down' => [['sauce 170'], ['0 cook', "50 $in"]];
        yield 'which has not begun' => [['sauce –'], ['0 prep', "1 $in"]];
        yield 'by eye' => [['look at the colour –'], ['0 cook', '1 note step=reminder text=look+at+the+colour']];
        yield 'said to be done' => [
            [],
            ['0 cook', '1 note step=reminder text=colour', '9 note step=reminder_done text=colour'],
        ];
        yield 'over with the batch' => [[], ['0 cook', '1 note step=reminder text=colour', '9 serve']];
    }
}
