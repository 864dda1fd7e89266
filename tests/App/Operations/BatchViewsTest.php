<?php

declare(strict_types=1);

namespace Verjuicer\Tests\App\Operations;

use PHPUnit\Framework\Attributes\DataProvider;
use PHPUnit\Framework\TestCase;
use Verjuicer\App\Operations\Batch\BatchPicture;
use Verjuicer\App\Operations\Batch\CookView;
use Verjuicer\App\Operations\Batch\HoldingLimits;
use Verjuicer\App\Operations\Batch\NextSteps;
use Verjuicer\App\Operations\Batch\PictureMark;
use Verjuicer\App\Operations\Batch\PictureTrack;
use Verjuicer\App\Operations\Batch\Requirement;
use Verjuicer\App\Platform\Wording\MeasureFormatter;
use Verjuicer\Core\Event\EventKinds;
use Verjuicer\Core\Event\Kind;
use Verjuicer\Core\Forecast\FallOutlook;
use Verjuicer\Tests\Core\Story;

/** What the page of a batch is made of. */
final class BatchViewsTest extends TestCase
{
    private const REST = ['0 cook', '100 200', '110 rest method=towels', '140 185', '170 172', '200 161'];
    private const SLOW = ['0 cook', '100 170', '110 cool method=walk-in', '112 136', '140 128', '170 120', '190 115'];

    public function testEveryLimitIsInOneAnswerTheFirstToBiteAtItsTop(): void
    {
        $assessment = Story::of(...self::REST)->about('lamb roast')->assess('205');
        $fall = FallOutlook::of($assessment);
        $limits = HoldingLimits::of($assessment, $fall);
        self::assertSame(['hot_limit', 'rest'], array_column($limits, 'rule'));
        self::assertNotNull($limits[0]->latest);
        $cooling = Story::of(...self::SLOW)->about('lamb roast')->assess('195');
        self::assertSame(
            ['cool.stage1', 'cool.total'],
            array_column(HoldingLimits::of($cooling, FallOutlook::of($cooling)), 'rule'),
        );
        self::assertSame([], HoldingLimits::of(Story::of('0 prep', '10 discard')->assess('20'), null));
    }

    public function testThePiecesOfTheLastCookWithTheirColdestSpot(): void
    {
        $view = CookView::of(
            Story::of('0 cook', '100 160 p1', '101 150 p1 @bone', '102 170 p3', '103 140 p3 @bone', '110 152 p1 @bone')
                ->about('turkey roast 3pieces')
                ->assess('120'),
        );
        self::assertNotNull($view);
        self::assertSame(
            [[1, '152 bone', 'running'], [2, 'none', 'none'], [3, '140 bone', 'running']],
            array_map(
                static fn (array $row): array => [
                    $row['piece'],
                    $row['coldest'] === null ? 'none' : $row['coldest']->temp->number().' '.$row['coldest']->spot,
                    $row['finding']?->verdict->value ?? 'none',
                ],
                $view->pieces,
            ),
        );
        self::assertNull(CookView::of(Story::of('0 prep')->assess('10')));
    }

    #[DataProvider('allergens')]
    public function testNoAllergensAreOnlyNoneWhereItIsSaidOfAllThatWentOn(bool $isUnknown, string ...$lines): void
    {
        self::assertSame(
            $isUnknown,
            CookView::areAllergensUnknown(Story::of(...array_values($lines))->about('beef cut')->assess('60')),
        );
    }

    /** @return iterable<array<bool|string>> */
    public static function allergens(): iterable
    {
        yield [false, '0 prep', '10 cook', '20 wrap with=foil', '30 wrap'];
        yield [false, '0 prep', '1 season recipe=Quarry+rub', '2 sauce recipe=Glaze allergens=["soy"]'];
        yield [true, '0 prep', '1 season with=pepper'];
        yield [true, '10 cook', '20 wrap with=butter'];
        yield [true, '10 cook way=braise'];
        yield [false, '10 cook way=sear'];
    }

    /** @param list<string> $lines */
    #[DataProvider('requirements')]
    public function testSaysWhatTheLawAsksAndWhy(?string $expected, string $product, array $lines): void
    {
        $requirement = Requirement::of(Story::of(...$lines)->about($product)->assess('60'));
        self::assertSame(
            $expected,
            $requirement === null
                ? null
                : $requirement->rule->category->value
                    .($requirement->piercedAt === null ? '' : ' pierced')
                    .($requirement->isPoultryLike ? ' like poultry' : ''),
        );
    }

    /** @return iterable<array{string|null, string, list<string>}> */
    public static function requirements(): iterable
    {
        yield ['roast', 'lamb roast', ['0 prep']];
        yield ['non_intact pierced', 'lamb roast', ['0 prep', '5 inject']];
        yield ['non_intact pierced', 'lamb roast', ['0 prep', '5 tenderize']];
        yield ['roast', 'lamb roast', ['0 prep', '5 inject', '6 void replaces=e1']];
        yield ['non_intact', 'pork comminuted', ['0 prep']];
        yield ['poultry like poultry', 'lamb roast stuffed', ['0 prep', '5 tenderize']];
        yield ['poultry', 'duck whole_bird', ['0 prep', '5 inject']];
        yield [null, 'pork rte_commercial', ['0 prep']];
    }

    public function testThePictureLeavesOutRawMeatInTheColdAndShowsWhatWasDone(): void
    {
        $lines = [
            '0 received temp=38',
            '5 cold_hold',
            '10 39',
            '2000 prep',
            '2005 season',
            '2030 cook',
            '2100 90',
            '2105 wrap',
            '2200 150',
        ];
        $picture = BatchPicture::of(Story::of(...$lines)->assess('2210'), new MeasureFormatter());
        self::assertSame(['cold_hold', 'prep', 'cook'], array_column($picture->bands, 'stage'));
        self::assertSame(
            [BatchPicture::LEFT * 1.0],
            [$picture->bands[0]['x']],
            'the end of the cold is cut off at the edge',
        );
        self::assertCount(2, $picture->tracks[0]->marks, 'the reading in the walk-in is not in it');
        self::assertSame(['season', 'wrap'], array_column($picture->signs, 'letter'));
        self::assertTrue($picture->isOpen);
        self::assertGreaterThan($picture->hotY, $picture->coldY, 'hot is up');
        foreach ($picture->tracks[0]->marks as $mark) {
            self::assertTrue($mark->x >= BatchPicture::LEFT && $mark->x <= $picture->nowX);
        }
    }

    public function testOfManyReadingsTheExtremesAreShownAndEveryEndHasItsName(): void
    {
        $lines = ['0600 cook'];
        for ($minute = 1; $minute < 1400; ++$minute) {
            $temperature = $minute === 700 ? 190 : 150 + $minute % 3;
            $lines[] = \sprintf('%02d%02d %d', 6 + intdiv($minute, 60), $minute % 60, $temperature);
            if ($minute >= 1000) {
                break;
            }
        }
        $picture = BatchPicture::of(Story::of(...$lines)->assess('2300'), new MeasureFormatter());
        $track = $picture->tracks[0];
        self::assertLessThan(220, \count($track->marks));
        self::assertSame(1000, $track->readings);
        self::assertContains(
            1900,
            array_map(static fn (PictureMark $mark): int => $mark->reading->temp->tenths, $track->marks),
            'no extreme is lost',
        );
        self::assertSame('1 core', $track->label());
        self::assertCount(40, $picture->latest());
    }

    public function testNamesAtTheEndsDoNotLieOnOneAnother(): void
    {
        $picture = BatchPicture::of(
            Story::of('0600 cook', '0700 150 p1 @flat', '0700 150 p1 @point', '0700 151 p2 @flat')
                ->about('beef roast 2pieces')
                ->assess('0800'),
            new MeasureFormatter(),
        );
        $places = array_map(static fn (PictureTrack $track): float => $track->labelY, $picture->tracks);
        sort($places);
        self::assertCount(3, $places);
        for ($index = 1; $index < 3; ++$index) {
            self::assertGreaterThanOrEqual(12.9, $places[$index] - $places[$index - 1]);
        }
    }

    public function testTheFanIsDrawnBetweenItsFastestAndItsSlowestCourse(): void
    {
        $assessment = Story::of(...self::SLOW)->about('lamb roast')->assess('195');
        $picture = BatchPicture::of($assessment, new MeasureFormatter(), FallOutlook::of($assessment));
        self::assertCount(50, explode(' ', $picture->fan));
        self::assertSame('', BatchPicture::of($assessment, new MeasureFormatter())->fan);
    }

    public function testEveryStageHasItsNextSteps(): void
    {
        $stages = array_keys(array_filter(EventKinds::all(), static fn (Kind $kind): bool => $kind->beginsStage()));
        foreach (['', ...$stages] as $stage) {
            $steps = array_column(NextSteps::after($stage), 'kind');
            self::assertNotSame([], $steps, $stage);
            $isOver = EventKinds::named($stage)?->endsBatch() === true;
            self::assertSame(
                !$isOver,
                \in_array('discard', $steps, true),
                $stage.': food in doubt can always be thrown away',
            );
            foreach (NextSteps::taps($stage) as $tap) {
                self::assertNotNull(NextSteps::tapped($tap), $tap);
            }
        }
        self::assertNotContains(
            'hot_hold',
            array_column(NextSteps::after('time_control'), 'kind'),
            'what is out by the clock never goes back',
        );
        self::assertNull(NextSteps::tapped('wrap/with/anything'));
    }
}
