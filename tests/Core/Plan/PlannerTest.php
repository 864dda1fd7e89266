<?php

declare(strict_types=1);

namespace Verjuicer\Tests\Core\Plan;

use PHPUnit\Framework\Attributes\DataProvider;
use PHPUnit\Framework\TestCase;
use Verjuicer\Core\Food\Animal;
use Verjuicer\Core\Food\Form;
use Verjuicer\Core\Food\Holding;
use Verjuicer\Core\Food\Integrity;
use Verjuicer\Core\Measure\Instant;
use Verjuicer\Core\Measure\Weight;
use Verjuicer\Core\Plan\ChillPlan;
use Verjuicer\Core\Plan\Conflict;
use Verjuicer\Core\Plan\ConflictKind;
use Verjuicer\Core\Plan\Dish;
use Verjuicer\Core\Plan\DishRest;
use Verjuicer\Core\Plan\HeatPlan;
use Verjuicer\Core\Plan\LearnedPace;
use Verjuicer\Core\Plan\PitCapacity;
use Verjuicer\Core\Plan\Planner;
use Verjuicer\Core\Plan\PlanOption;
use Verjuicer\Core\Plan\PlanOptionKind;
use Verjuicer\Core\Plan\PlanOptions;
use Verjuicer\Core\Plan\PrepLeadTimes;
use Verjuicer\Core\Plan\Progress;
use Verjuicer\Core\Plan\Shift;
use Verjuicer\Core\Plan\Step;
use Verjuicer\Core\Plan\StepKind;
use Verjuicer\Core\Record\RecordedProduct;

/** A cook takes one to ten hours (`FixedTimes`), the meal is at eight in the evening, now is the day before. */
final class PlannerTest extends TestCase
{
    private const NOW = '2026-11-27T20:00:00Z';
    private const MEAL = '2026-11-28T20:00:00Z';
    private const HOUR = 3600;

    public function testEverythingIsWorkedBackFromTheMeal(): void
    {
        $dish = self::dish(
            heat: new HeatPlan(121.0, 95.0, 'paper', 74.0, sauced: 900),
            rest: new DishRest(Holding::Box, self::HOUR, Holding::Cabinet, 900),
            leads: new PrepLeadTimes(24 * self::HOUR, 0, 2 * self::HOUR, 1800, self::HOUR),
        );
        $one = self::planner()->schedule([$dish])->dishes[0];
        // Slicing a quarter of an hour, an hour's rest, nine hours that nine cooks in ten are done in, wrapped.
        self::assertSame('2026-11-28T09:45:00Z', $one->load->rfc3339());
        self::assertSame(
            [
                'thaw 2026-11-27T07:45:00Z',
                'season 2026-11-28T07:45:00Z',
                'fire 2026-11-28T08:45:00Z',
                'temper 2026-11-28T09:15:00Z',
                'load 2026-11-28T09:45:00Z',
                'wrap 2026-11-28T10:15:00Z',
                'sauce 2026-11-28T14:30:00Z',
                'pull 2026-11-28T14:45:00Z',
                'hold 2026-11-28T15:45:00Z',
                'slice 2026-11-28T19:45:00Z',
            ],
            array_map(static fn (Step $one): string => $one->kind->value.' '.$one->at->rfc3339(), $one->steps),
        );
        $pull = $one->step(StepKind::Pull);
        self::assertSame('2026-11-28T10:45:00Z', $pull?->earliest?->rfc3339());
        self::assertSame('2026-11-28T18:45:00Z', $pull->latest?->rfc3339());
        self::assertEqualsWithDelta(0.0, $one->late, 0.1);
        self::assertSame($one->load->epoch, $one->latestLoad->epoch);
    }

    /** @param list<string> $kinds */
    #[DataProvider('broken')]
    public function testSaysWhatBreaks(array $kinds, Dish ...$dishes): void
    {
        $conflicts = self::planner()->schedule(array_values($dishes))->conflicts;
        $found = array_map(static fn (Conflict $one): string => $one->kind->value, $conflicts);
        sort($found);
        self::assertSame($kinds, $found);
    }

    /** @return iterable<string, array<mixed>> */
    public static function broken(): iterable
    {
        $kept = new DishRest(Holding::Box, self::HOUR, Holding::Cabinet, 900);
        $at = static fn (string $time): Instant => Instant::parse('2026-11-28T'.$time.':00Z');
        yield 'nothing' => [[], self::dish()];
        yield 'loaded too late' => [['late'], self::dish(load: $at('15:00'))];
        yield 'as late as does' => [[], self::dish(load: $at('08:45'))];
        yield 'a box until the meal' => [
            ['falls_below'],
            self::dish(rest: new DishRest(Holding::Box, self::HOUR, null, 900)),
        ];
        yield 'on a rack before the cabinet' => [
            ['falls_below'],
            self::dish(rest: new DishRest(Holding::Rack, 5400, Holding::Cabinet, 900)),
        ];
        yield 'rare, and then it waits' => [['pulled_cool'], self::dish(heat: new HeatPlan(121.0, 52.0))];
        yield 'no pit' => [['no_pit'], self::dish(pit: null)];
        yield 'to be thawed since yesterday' => [
            ['past'],
            self::dish(leads: new PrepLeadTimes(36 * self::HOUR, 0, 0, 0, self::HOUR)),
        ];
        yield 'by the clock, and not done' => [
            ['undone'],
            self::dish(heat: new HeatPlan(121.0, 95.0, total: 6 * self::HOUR)),
        ];
        yield 'two set points in one pit' => [
            ['two_sets'],
            self::dish('one'),
            self::dish('other', heat: new HeatPlan(149.0, 95.0)),
        ];
        yield 'the same in another pit' => [
            [],
            self::dish('one'),
            self::dish('other', heat: new HeatPlan(149.0, 95.0), pit: 'Offset'),
        ];
        yield 'more than it holds' => [['no_room'], self::dish('one', 12_000), self::dish('other', 12_000)];
        yield 'cooled too deep, reheated too long' => [
            ['gates', 'reheat_too_long'],
            self::dish(chill: new ChillPlan(Holding::WalkIn, 0.1, false, 3 * self::HOUR)),
        ];
        yield 'what is on the heat is never past' => [
            ['late'],
            self::dish(
                load: $at('15:00'),
                progress: new Progress(Instant::parse(self::NOW), null, FixedTimes::evenly(23, 26, self::HOUR)),
            ),
        ];
        yield 'off already' => [
            [],
            self::dish(progress: new Progress($at('09:00'), $at('15:00'), null), rest: $kept),
        ];
    }

    public function testWhatAnotherPlanHasInThePitIsInTheWayAndNothingElseOfItIsSaid(): void
    {
        $own = self::dish('own', heat: new HeatPlan(149.0, 95.0));
        $late = Instant::parse('2026-11-28T15:00:00Z');
        $schedule = self::planner(beside: [self::dish('theirs', load: $late), self::dish('more', load: $late)])
            ->schedule([$own]);
        self::assertCount(1, $schedule->dishes);
        self::assertSame(['theirs', 'more'], array_map(static fn ($one): string => $one->dish->id, $schedule->beside));
        self::assertSame(
            [ConflictKind::TwoSets, ConflictKind::TwoSets],
            array_map(static fn (Conflict $one): ConflictKind => $one->kind, $schedule->conflictsOf('own')),
        );
        self::assertCount(2, $schedule->conflicts, 'that theirs are late is theirs');
        self::assertNotNull($schedule->of('theirs'));
    }

    public function testWhatIsOverIsNotAdvised(): void
    {
        $planner = new Planner(
            new FixedTimes(),
            FixedTimes::gates(),
            2 * self::HOUR,
            self::pits(),
            [],
            Instant::parse('2026-11-29T09:00:00Z'),
        );
        $dishes = [
            self::dish('one', load: Instant::parse('2026-11-28T19:00:00Z'), chill: null),
            self::dish('other', heat: new HeatPlan(149.0, 95.0), pit: 'Drum'),
        ];
        $schedule = $planner->schedule($dishes);
        self::assertSame([], $schedule->conflicts);
        self::assertSame([], (new PlanOptions($planner, self::pits()))->of($dishes, $schedule, 'one'));
    }

    public function testAPitIsLitOnceForWhatFollowsInIt(): void
    {
        $schedule = self::planner()->schedule([self::dish('one'), self::dish('other')]);
        $lit = array_filter(
            $schedule->dishes,
            static fn ($one): bool => $one->step(StepKind::Fire) !== null,
        );
        self::assertCount(1, $lit);
    }

    public function testWorkThatFallsWhereNobodyIsIsSaid(): void
    {
        $shift = new Shift('Ike', Instant::parse('2026-11-28T08:00:00Z'), Instant::parse('2026-11-28T21:00:00Z'));
        $planner = self::planner($shift);
        self::assertSame(
            ConflictKind::NobodyThere,
            $planner->schedule([self::dish()])->conflicts[0]->kind ?? null,
        );
        self::assertSame([], $planner->schedule([self::dish(leads: new PrepLeadTimes(fire: 1200))])->conflicts);
    }

    public function testAMealIsThereWhenAllOfItIs(): void
    {
        $late = self::dish('late', load: Instant::parse('2026-11-28T13:45:00Z'), pit: 'Offset');
        $schedule = self::planner()->schedule([self::dish('one'), $late]);
        $meal = Instant::parse(self::MEAL);
        $chances = array_map(static fn ($one): float => 1.0 - $one->late, $schedule->dishes);
        self::assertEqualsWithDelta($chances[0] * $chances[1], $schedule->allThere($meal), 1e-9);
        $by = $schedule->allThereBy($meal, 0.9);
        self::assertTrue($by !== null && $by->isAfter($meal));
    }

    /** @param list<Dish> $dishes the first is to be mended */
    #[DataProvider('mended')]
    public function testWaysOut(PlanOptionKind $kind, array $dishes): void
    {
        $planner = self::planner();
        $now = $planner->schedule($dishes);
        $ways = (new PlanOptions($planner, self::pits()))->of($dishes, $now, $dishes[0]->id);
        $found = array_column(
            array_map(static fn (PlanOption $one): array => [$one->kind->value, $one], $ways),
            1,
            0,
        );
        self::assertArrayHasKey($kind->value, $found);
        $way = $found[$kind->value];
        self::assertSame([], $way->left, 'mends it');
        // What was taken is planned as it was offered.
        $taken = [$way->after->dish, ...\array_slice($dishes, 1)];
        self::assertLessThan($now->weight(), $planner->schedule($taken)->weight());
        self::assertEqualsWithDelta($way->after->late, $planner->schedule($taken)->dishes[0]->late, 1e-9);
    }

    /** @return iterable<string, array{PlanOptionKind, list<Dish>}> */
    public static function mended(): iterable
    {
        $at = Instant::parse('2026-11-28T10:00:00Z');
        yield 'hotter' => [PlanOptionKind::Hotter, [self::dish(load: $at)]];
        yield 'wrapped' => [PlanOptionKind::Wrap, [self::dish(load: $at)]];
        yield 'earlier' => [PlanOptionKind::Earlier, [self::dish(load: $at)]];
        yield 'served later' => [PlanOptionKind::ServeLater, [self::dish(load: $at)]];
        yield 'a cabinet' => [
            PlanOptionKind::Hold,
            [self::dish(rest: new DishRest(Holding::Box, self::HOUR, null, 900))],
        ];
        yield 'another pit' => [
            PlanOptionKind::OtherPit,
            [self::dish('late', heat: new HeatPlan(149.0, 95.0)), self::dish('one')],
        ];
        yield 'the set point of the other' => [
            PlanOptionKind::SameSet,
            [self::dish('late', heat: new HeatPlan(149.0, 95.0)), self::dish('one')],
        ];
        yield 'thinner' => [
            PlanOptionKind::Shallower,
            [self::dish(chill: new ChillPlan(Holding::WalkIn, 0.1, false, self::HOUR))],
        ];
    }

    public function testWhatIsFineOrOnTheHeatIsNotMended(): void
    {
        $planner = self::planner();
        $ways = new PlanOptions($planner, self::pits());
        foreach ([self::dish(), self::dish(progress: new Progress(Instant::parse(self::NOW), null, null))] as $dish) {
            self::assertSame([], $ways->of([$dish], $planner->schedule([$dish]), $dish->id));
        }
    }

    private static function dish(
        string $id = 'one',
        int $grams = 2000,
        ?HeatPlan $heat = null,
        ?DishRest $rest = null,
        ?ChillPlan $chill = null,
        ?PrepLeadTimes $leads = null,
        ?string $pit = 'Drum',
        ?Instant $load = null,
        ?Progress $progress = null,
    ): Dish {
        return new Dish(
            $id,
            new RecordedProduct('Lamb', Animal::Lamb, Form::Roast, Integrity::Intact, Weight::ofGrams($grams), 1),
            $heat ?? new HeatPlan(121.0, 95.0),
            $rest ?? new DishRest(Holding::Box, self::HOUR, Holding::Cabinet, 900),
            $chill,
            $leads ?? new PrepLeadTimes(),
            $pit,
            $load,
            Instant::parse(self::MEAL),
            $progress,
            LearnedPace::usual(),
        );
    }

    /** @return list<PitCapacity> */
    private static function pits(): array
    {
        return [new PitCapacity('Drum', 20_000), new PitCapacity('Offset', 90_000)];
    }

    /** @param list<Dish> $beside */
    private static function planner(?Shift $shift = null, array $beside = []): Planner
    {
        return new Planner(
            new FixedTimes(),
            FixedTimes::gates(),
            2 * self::HOUR,
            self::pits(),
            $shift === null ? [] : [$shift],
            Instant::parse(self::NOW),
            $beside,
        );
    }
}
