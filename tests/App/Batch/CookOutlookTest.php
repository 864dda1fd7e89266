<?php

declare(strict_types=1);

namespace Verjuicer\Tests\App\Batch;

use PHPUnit\Framework\Attributes\DataProvider;
use PHPUnit\Framework\TestCase;
use Verjuicer\App\Platform\Wording\Figures;
use Verjuicer\App\Work\Batch\BatchPicture;
use Verjuicer\App\Work\Batch\CookView;
use Verjuicer\App\Work\Batch\Requirement;
use Verjuicer\App\Work\Batch\Step;
use Verjuicer\Core\Forecast\CookOutlook;
use Verjuicer\Core\Measure\Temperature;
use Verjuicer\Core\Record\EventType;
use Verjuicer\Tests\Core\Story;

/** What a batch page says of a cook beyond its verdicts: how it is likely to go on, piece by piece, and why the law asks what it asks. */
final class CookOutlookTest extends TestCase
{
    private const CLIMBING = ['0 cook set=275', '180 150', '210 158', '240 166'];

    /** @param list<string> $lines */
    #[DataProvider('outlooks')]
    public function testSaysWhenItMayBeDoneAndWhetherThatIsTooLate(?string $expected, array $lines, string $asOf = '245'): void
    {
        $outlook = self::outlook($lines, $asOf);
        self::assertSame($expected, $outlook === null ? null : implode(' ', array_filter([
            $outlook->isReached ? 'reached' : ($outlook->window === null ? 'unknown' : 'likely'),
            $outlook->isWrapped ? 'wrapped' : '',
            $outlook->stall?->isOpen === true ? 'stalled' : '',
            $outlook->lateness() ?? '',
            implode(' ', $outlook->unestimated),
        ], static fn (string $word): bool => $word !== '')));
    }

    /** @return iterable<string, array{0: string|null, 1: list<string>, 2?: string}> */
    public static function outlooks(): iterable
    {
        yield 'climbing' => ['likely', self::CLIMBING];
        yield 'wrapped' => ['likely wrapped', [...self::CLIMBING, '241 wrap']];
        yield 'wrapped in a cook before this one' => ['likely', ['-500 cook', '-400 wrap', '-300 170', '-290 cool', '-100 prep', ...self::CLIMBING]];
        yield 'at its target at every spot' => ['reached', ['0 cook set=275', '200 196 p1', '201 199 p2']];
        yield 'a piece without an estimate is named' => ['likely 2/core', [...self::CLIMBING, '241 150 p2']];
        yield 'one spot is not there' => ['unknown 2/core', ['0 cook set=275', '200 196 p1', '201 180 p2']];
        yield 'nothing read' => ['unknown', ['0 cook set=275']];
        yield 'the pit is not noted' => ['unknown 1/core', ['0 cook', '180 150', '210 158', '240 166']];
        yield 'the pit was read too cold for it' => ['unknown 1/core', [...self::CLIMBING, '242 pit_reading temp=190']];
        yield 'in the stall' => ['likely stalled', ['0 cook set=275', '150 150', '200 158', '230 159', '260 161'], '265'];
        yield 'suspect readings forecast nothing' => ['unknown', array_map(static fn (string $line): string => str_contains($line, 'cook') ? $line : $line.' T9', self::CLIMBING)];
        yield 'off the heat' => [null, [...self::CLIMBING, '244 rest']];
        yield 'back on it to sear' => ['likely', [...self::CLIMBING, '242 rest', '244 cook set=400']];
    }

    public function testComparesWithWhatItIsWantedFor(): void
    {
        $window = self::outlook(self::CLIMBING, '245')?->window;
        self::assertNotNull($window);
        foreach ([['late', $window->earliest->epoch - 60], ['maybe', $window->earliest->epoch + 60], [null, $window->latest->epoch + 60]] as [$expected, $wanted]) {
            $minutes = intdiv($wanted - Story::at('0')->epoch, 60);
            $outlook = self::outlook([...self::CLIMBING, '10 note ready_by='.Story::at((string) $minutes)->rfc3339()], '245');
            self::assertSame($expected, $outlook?->lateness());
        }
        self::assertNull(self::outlook(self::CLIMBING, '245', null), 'nobody said how it is liked');
    }

    public function testThePiecesOfTheLastCookWithTheirColdestSpot(): void
    {
        $view = CookView::of(Story::of('0 cook', '100 160 p1', '101 150 p1 @bone', '102 170 p3', '103 140 p3 @bone', '110 152 p1 @bone')->about('turkey roast 3pieces')->assess('120'));
        self::assertNotNull($view);
        self::assertSame(
            [[1, '152 bone', 'running'], [2, 'none', 'none'], [3, '140 bone', 'running']],
            array_map(static fn (array $row): array => [$row['piece'], $row['coldest'] === null ? 'none' : $row['coldest']->temp->number().' '.$row['coldest']->spot, $row['finding']?->verdict->value ?? 'none'], $view->pieces),
        );
        self::assertNull(CookView::of(Story::of('0 prep')->assess('10')));
    }

    /** @param list<string> $lines */
    #[DataProvider('requirements')]
    public function testSaysWhatTheLawAsksAndWhy(?string $expected, string $product, array $lines): void
    {
        $requirement = Requirement::of(Story::of(...$lines)->about($product)->assess('60'));
        self::assertSame($expected, $requirement === null ? null : $requirement->rule->category->value.($requirement->piercedAt === null ? '' : ' pierced').($requirement->isPoultryLike ? ' like poultry' : ''));
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
        $lines = ['0 received temp=38', '5 cold_hold', '10 39', '2000 prep', '2005 season', '2030 cook', '2100 90', '2105 wrap', '2200 150'];
        $picture = BatchPicture::of(Story::of(...$lines)->assess('2210'), new Figures());
        self::assertSame(['cold_hold', 'prep', 'cook'], array_column($picture->bands, 'stage'));
        self::assertSame([BatchPicture::LEFT * 1.0], [$picture->bands[0]['x']], 'the end of the cold is cut off at the edge');
        self::assertCount(2, $picture->tracks[0]['marks'], 'the reading in the walk-in is not in it');
        self::assertSame(['season', 'wrap'], array_column($picture->signs, 'letter'));
        self::assertTrue($picture->isOpen);
        self::assertGreaterThan($picture->hotY, $picture->coldY, 'hot is up');
        foreach ($picture->tracks[0]['marks'] as $mark) {
            self::assertTrue($mark['x'] >= BatchPicture::LEFT && $mark['x'] <= $picture->nowX);
        }
    }

    public function testEveryStageHasItsNextSteps(): void
    {
        foreach ([null, ...EventType::cases()] as $stage) {
            $steps = Step::after($stage);
            if ($stage === null || ($stage->isStage() && $stage !== EventType::Close)) {
                self::assertNotSame([], $steps, $stage->value ?? 'none');
            }
            if (\in_array($stage, [EventType::Cook, EventType::Rest, EventType::HotHold, EventType::Cool, EventType::Reheat, EventType::TimeControl], true)) {
                self::assertContains(EventType::Discard, $steps, 'food in doubt can always be thrown away');
            }
            foreach (Step::taps($stage) as $tap) {
                self::assertNotNull(EventType::tryFrom(explode('/', $tap)[0]), $tap);
            }
        }
        self::assertNotContains(EventType::HotHold, Step::after(EventType::TimeControl), 'what is out by the clock never goes back');
    }

    /** @param list<string> $lines */
    private static function outlook(array $lines, string $asOf, ?string $target = '195'): ?CookOutlook
    {
        return CookOutlook::of(Story::of(...$lines)->about('lamb roast 2pieces')->withThermometer('T9', '500 32 40')->assess($asOf), $target === null ? null : Temperature::fahrenheit($target));
    }
}
