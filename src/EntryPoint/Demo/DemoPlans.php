<?php

declare(strict_types=1);

namespace Verjuicer\App\EntryPoint\Demo;

use Doctrine\ORM\EntityManagerInterface;
use Symfony\Component\Uid\Uuid;
use Verjuicer\App\Catalogue\Product\Products;
use Verjuicer\App\Ledger\Batch\Batch;
use Verjuicer\App\Operations\Plan\CookStyle;
use Verjuicer\App\Operations\Plan\DishDefaults;
use Verjuicer\App\Operations\Plan\DishFacts;
use Verjuicer\App\Operations\Plan\Plan;
use Verjuicer\App\Operations\Plan\PlannedDish;
use Verjuicer\App\Operations\Plan\PlannedMoments;
use Verjuicer\App\Operations\Plan\Plans;
use Verjuicer\App\Operations\Plan\Service;
use Verjuicer\App\Platform\Now;
use Verjuicer\App\Site\People\Account;
use Verjuicer\App\Site\Site\Site;
use Verjuicer\App\Site\Site\WallTime;
use Verjuicer\Core\Measure\Instant;
use Verjuicer\Core\Measure\LocalDate;
use Verjuicer\Core\Measure\Span;
use Verjuicer\Core\Plan\Shift;

/**
 * Plans of the demo kitchen: tonight, a lunch, a harvest supper, and a cook-and-chill for Monday.
 *
 * @phpstan-import-type Kept from DishFacts
 */
final readonly class DemoPlans
{
    private const BY = 'MR';
    private const LEAST_HOURS = 34;
    /** Product, plates, grams on one, cook style, pit, and differences from the usual; `loadHours` before the meal. */
    private const SUPPER = [
        ['Beef brisket', 60, 140, CookStyle::LowSlow, 'Offset', []],
        ['Mutton ham', 30, 130, CookStyle::LowSlow, 'Offset', []],
        ['Lamb shoulder', 60, 140, CookStyle::LowSlow, 'Drum', ['hold' => null, 'rest' => 'box']],
        ['Goat leg', 30, 130, CookStyle::LowSlow, 'Drum', ['loadHours' => -7]],
        [
            'Duck',
            24,
            160,
            CookStyle::HotFast,
            'Oven',
            ['wrap' => null, 'wrapAt' => null, 'chillMethod' => 'walk_in', 'chillDepthMm' => 60, 'loadHours' => -24],
        ],
        ['House sausage', 60, 120, CookStyle::LowSlow, 'Oven', ['slicing' => 0]],
    ];
    private const LUNCH = [
        ['Chicken, whole', 24, 170, CookStyle::HotFast, 'Drum', ['wrap' => null, 'wrapAt' => null]],
        ['Turkey breast', 20, 130, CookStyle::LowSlow, 'Drum', []],
    ];
    private const MONDAY = [
        [
            'Beef cheek',
            40,
            120,
            CookStyle::LowSlow,
            'Offset',
            ['chillMethod' => 'blast_chiller', 'chillDepthMm' => 40, 'slicing' => 0],
        ],
        ['Pork butt', 30, 130, CookStyle::LowSlow, 'Offset', ['chillMethod' => 'walk_in', 'chillDepthMm' => 75]],
    ];

    public function __construct(
        private EntityManagerInterface $entities,
        private Plans $plans,
        private Products $products,
        private DishDefaults $defaults,
        private Now $now,
    ) {
    }

    public function load(Site $loaded): void
    {
        // The entities of a long load were let go of.
        $site = $this->entities->find(Site::class, $loaded->id) ?? throw new \LogicException('No kitchen.');
        $by = $this->entities->getRepository(Account::class)->findOneBy(['site' => $site, 'initials' => self::BY])
            ?? throw new \LogicException('Nobody plans.');
        $supper = $this->plan($site, $by, 'Harvest supper', $this->next($site, 6, '18:30'), 120, self::SUPPER);
        $supper->staff($this->shifts($supper->first()));
        $this->plan($site, $by, 'Weekday lunch', $this->weekday($site), 40, self::LUNCH);
        $this->plan($site, $by, 'Monday, cooked and chilled', $this->next($site, 1, '11:30'), 60, self::MONDAY);
        $tonight = $this->now->instant()->plus(Span::ofMinutes(180))->epoch;
        $this->tonight($site, $by, Instant::ofEpoch(900 * intdiv($tonight, 900)));
        $this->plans->keep();
    }

    /** @param list<array{string, int, int, CookStyle, string, array<string, mixed>}> $dishes */
    private function plan(Site $site, Account $by, string $name, Instant $at, int $guests, array $dishes): Plan
    {
        $service = new Service('first', $name, $at, $guests);
        $plan = new Plan(Uuid::v7(), $site, $name, $service, $by, $this->now->instant());
        $this->plans->add($plan);
        foreach ($dishes as [$product, $plates, $grams, $school, $pit, $otherwise]) {
            $this->dish($plan, $product, $plates, $grams, $school, ['pit' => $pit] + $otherwise);
        }

        return $plan;
    }

    /** @param array<string, mixed> $otherwise */
    private function dish(
        Plan $plan,
        string $name,
        int $plates,
        int $grams,
        CookStyle $school,
        array $otherwise,
    ): PlannedDish {
        $product = $this->products->named($plan->site, $name) ?? throw new \LogicException("No $name.");
        $facts = $this->defaults->of($product, $school, $plates, $grams, null)->kept();
        $hours = $otherwise['loadHours'] ?? null;
        if (\is_int($hours)) {
            $otherwise['load'] = $plan->first()->plus(Span::ofHours($hours))->epoch;
        }
        /** @var Kept $all */
        $all = array_merge($facts, $otherwise);
        $facts = DishFacts::of($all);
        $dish = new PlannedDish(Uuid::v7(), $plan->site, $plan, $product, 'first', $facts);
        $this->plans->add($dish);

        return $dish;
    }

    /** Cooks on the heat now were planned, too. */
    private function tonight(Site $site, Account $by, Instant $at): void
    {
        $plan = $this->plan($site, $by, 'Tonight', $at, 40, []);
        $dish = $this->dish($plan, 'Lamb shoulder', 40, 140, CookStyle::LowSlow, ['pit' => 'Drum']);
        $batch = $this->entities->getRepository(Batch::class)->findOneBy(['site' => $site, 'tag' => 7]);
        if ($batch !== null) {
            $minutes = static fn (int $minutes): Instant => $at->plus(Span::ofMinutes($minutes));
            $moments = new PlannedMoments(
                $minutes(-485),
                $minutes(-250),
                $minutes(-110),
                $minutes(-20),
                $at,
                5600,
            );
            $dish->becomes($batch, $moments);
        }
    }

    /** @return list<Shift> a night at the pit and the day of the meal */
    private function shifts(Instant $meal): array
    {
        $at = static fn (int $hours): Instant => $meal->plus(Span::ofHours($hours));

        return [
            new Shift('Ike', $at(-34), $at(-22)),
            new Shift('Mara', $at(-23), $at(-9)),
            new Shift('Ike', $at(-10), $at(2)),
        ];
    }

    /** The next such day of the week that is far enough ahead; 1 is Monday. */
    private function next(Site $site, int $weekday, string $time): Instant
    {
        $now = $this->now->instant();
        $day = LocalDate::ofInstant($now->plus(Span::ofHours(self::LEAST_HOURS)), $site->zone());
        while ((int) gmdate('N', 86_400 * $day->days) !== $weekday) {
            $day = $day->plusDays(1);
        }

        return WallTime::parse($day->iso().' '.$time, $site->zone(), $now) ?? $now;
    }

    private function weekday(Site $site): Instant
    {
        $now = $this->now->instant();
        $day = LocalDate::ofInstant($now->plus(Span::ofHours(22)), $site->zone());
        while ((int) gmdate('N', 86_400 * $day->days) > 5) {
            $day = $day->plusDays(1);
        }

        return WallTime::parse($day->iso().' 12:00', $site->zone(), $now) ?? $now;
    }
}
