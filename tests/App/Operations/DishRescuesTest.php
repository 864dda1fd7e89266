<?php

declare(strict_types=1);

namespace Verjuicer\Tests\App\Operations;

use Symfony\Component\Uid\Uuid;
use Verjuicer\App\Catalogue\Product\Products;
use Verjuicer\App\Operations\Plan\DishRescues;
use Verjuicer\App\Operations\Plan\Plan;
use Verjuicer\App\Operations\Plan\PlannedDish;
use Verjuicer\App\Operations\Plan\Plans;
use Verjuicer\App\Operations\Plan\PlanSheets;
use Verjuicer\App\Operations\Plan\Service;
use Verjuicer\App\Platform\Now;
use Verjuicer\App\Projection\Lane\Lane;
use Verjuicer\Core\Measure\Span;
use Verjuicer\Tests\App\KitchenTestCase;

/** What may stand in for a dish that will be late: held food of the same kind, sound, and in date at the meal. */
final class DishRescuesTest extends KitchenTestCase
{
    public function testOnlySoundFoodInDateStandsInForADish(): void
    {
        $this->logIn();
        self::assertSame([21, 28], $this->offered('Beef cheek', 3));
        self::assertSame([28], $this->offered('Beef cheek', 24), 'nothing is held hot until tomorrow');
        self::assertSame([], $this->offered('Beef cheek', 9 * 24), 'and nothing is kept past its date');
        self::assertSame([], $this->offered('Beef brisket', 3), 'what was not shown to be cooled in time');
        $this->keep('21 118', isSure: true);
        self::assertSame([28], $this->offered('Beef cheek', 3), 'what fell under the limit');
    }

    /** @return list<int> tags of what is offered for a dish of a product that is served in so many hours */
    private function offered(string $product, int $hours): array
    {
        $by = $this->logIn();
        $plans = $this->service(Plans::class);
        $facts = $plans->dishes($plans->of($by->site)[0])[0]->facts();
        $now = $this->service(Now::class)->instant();
        $served = new Service(Uuid::v7()->toRfc4122(), 'Supper', $now->plus(Span::ofHours($hours)), 10);
        $plan = new Plan(Uuid::v7(), $by->site, 'A supper', $served, $by, $now);
        $plans->add($plan);
        $of = $this->service(Products::class)->named($by->site, $product);
        self::assertNotNull($of);
        $plans->add(new PlannedDish(Uuid::v7(), $by->site, $plan, $of, $served->id, $facts));
        $sheet = $this->service(PlanSheets::class)->of($plan)->dishes[0] ?? null;
        self::assertNotNull($sheet);
        $tags = array_map(
            static fn (Lane $one): int => $one->tag,
            $this->service(DishRescues::class)->of($sheet)['held'],
        );
        sort($tags);

        return $tags;
    }
}
