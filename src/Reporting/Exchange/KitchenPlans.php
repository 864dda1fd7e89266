<?php

declare(strict_types=1);

namespace Verjuicer\App\Reporting\Exchange;

use Doctrine\ORM\EntityManagerInterface;
use Symfony\Component\Uid\Uuid;
use Verjuicer\App\Catalogue\Product\Product;
use Verjuicer\App\Ledger\Batch\Batch;
use Verjuicer\App\Operations\Plan\DishFacts;
use Verjuicer\App\Operations\Plan\Plan;
use Verjuicer\App\Operations\Plan\PlannedDish;
use Verjuicer\App\Operations\Plan\PlannedMoments;
use Verjuicer\App\Operations\Plan\Plans;
use Verjuicer\App\Operations\Plan\Service;
use Verjuicer\App\Platform\Now;
use Verjuicer\App\Site\People\Account;
use Verjuicer\App\Site\Site\Site;
use Verjuicer\Core\Json\Fields;
use Verjuicer\Core\Plan\Shift;

/**
 * Plans as `verjuicer-site/1` writes them. A dish that became a real batch names it; a plan with such dishes waits
 * until all of those batches are here.
 */
final readonly class KitchenPlans
{
    public function __construct(private EntityManagerInterface $entities, private Plans $plans, private Now $now)
    {
    }

    /** @return list<array<string, mixed>> */
    public function written(Site $site): array
    {
        $plans = $this->entities->getRepository(Plan::class)
            ->findBy(['site' => $site], ['beginsAt' => 'ASC', 'name' => 'ASC']);

        return array_map(fn (Plan $plan): array => [
            'name' => $plan->name,
            'retired' => $plan->isRetired,
            'services' => array_map(static fn (Service $one): array => [
                'name' => $one->name,
                'at' => $one->at->rfc3339(),
                'guests' => $one->guests,
            ], $plan->services()),
            'shifts' => array_map(static fn (Shift $one): array => [
                'who' => $one->who,
                'from' => $one->from->rfc3339(),
                'to' => $one->to->rfc3339(),
            ], $plan->shifts()),
            'dishes' => array_map(static fn (PlannedDish $one): array => [
                'product' => $one->product->name,
                'service' => self::placeOf($plan, $one->service),
                'facts' => $one->facts()->kept(),
            ] + array_filter([
                'batch' => $one->batch?->code,
                'planned' => $one->planned()?->toArray(),
            ], static fn (mixed $said): bool => $said !== null), $this->plans->dishes($plan)),
        ], $plans);
    }

    /**
     * @param array<mixed> $products names of those in the file
     *
     * @return \Generator<int, (\Closure(): mixed)|null> null for one that is here
     */
    public function taken(Fields $fields, array $products, Account $by): \Generator
    {
        foreach ($fields->objects('plans', false) as $one) {
            $name = mb_substr($one->requiredText('name') ?? '', 0, 80);
            $isRetired = $one->flag('retired');
            $services = $this->services($one);
            $shifts = $this->shifts($one);
            [$dishes, $waits] = $this->dishes($one, \count($services), $products, $by->site);
            if ($services === [] || $waits) {
                continue;
            }
            $id = Uuid::v5($by->site->id, "plan $name ".$services[0]->at->epoch);
            $isHere = $this->isHere($by->site, $id, $name, $services[0]);
            foreach ($isHere ? [] : $dishes as [, , , $batch]) {
                if ($batch !== null && $this->isPlanned($batch)) {
                    $one->wrong('dishes', 'name a batch that another plan here has already: '.$batch->code);
                }
            }
            yield $isHere ? null : function () use ($id, $name, $isRetired, $services, $shifts, $dishes, $by): void {
                $plan = new Plan($id, $by->site, $name, $services[0], $by, $this->now->instant());
                array_map($plan->serve(...), $services);
                $plan->staff($shifts);
                $plan->isRetired = $isRetired;
                $this->plans->add($plan);
                foreach ($dishes as [$product, $service, $facts, $batch, $moments]) {
                    $dish = new PlannedDish(
                        Uuid::v7(),
                        $by->site,
                        $plan,
                        $this->product($by->site, $product) ?? throw new \LogicException('It was asked for.'),
                        $services[$service]->id,
                        $facts,
                    );
                    if ($batch !== null && $moments !== null) {
                        $dish->becomes($batch, $moments);
                    }
                    $this->plans->add($dish);
                }
            };
        }
    }

    /** @return list<Service> in the order of time */
    private function services(Fields $plan): array
    {
        $services = [];
        foreach ($plan->objects('services', true) as $one) {
            $at = $one->requiredInstant('at');
            $name = $one->requiredText('name');
            if ($at !== null && $name !== null) {
                $id = Uuid::v5(Uuid::fromString(Uuid::NAMESPACE_OID), "$name $at->epoch")->toRfc4122();
                $services[] = new Service($id, $name, $at, $one->count('guests', 1));
            }
        }
        if ($services === []) {
            $plan->wrong('services', 'are missing: a plan is for a meal');
        }
        usort($services, static fn (Service $one, Service $other): int => $one->at->epoch <=> $other->at->epoch);

        return $services;
    }

    /** @return list<Shift> */
    private function shifts(Fields $plan): array
    {
        $shifts = [];
        foreach ($plan->objects('shifts', false) as $one) {
            $who = $one->requiredText('who');
            [$from, $to] = [$one->requiredInstant('from'), $one->requiredInstant('to')];
            if ($who !== null && $from !== null && $to !== null) {
                $shifts[] = new Shift($who, $from, $to);
            }
        }

        return $shifts;
    }

    /**
     * @param array<mixed> $products names of those in the file
     *
     * @return array{list<array{string, int, DishFacts, Batch|null, PlannedMoments|null}>, bool} and whether one waits
     *     for its batch
     */
    private function dishes(Fields $plan, int $services, array $products, Site $site): array
    {
        $dishes = [];
        $waits = false;
        foreach ($plan->objects('dishes', false) as $one) {
            $product = $one->requiredText('product') ?? '';
            if (!\in_array($product, $products, true) && $this->product($site, $product) === null) {
                $one->wrong('product', 'names none of "products": write it there');
            }
            $service = $one->whole('service') ?? 0;
            if ($service < 0 || $service >= $services) {
                $one->wrong('service', 'is the place of none of "services", counted from 0');
            }
            $facts = self::facts($one);
            $code = $one->text('batch');
            $planned = self::moments($one);
            $batch = $code === null
                ? null
                : $this->entities->getRepository(Batch::class)->findOneBy(['site' => $site, 'code' => $code]);
            $waits = $waits || ($code !== null && $batch === null);
            if ($facts !== null) {
                $dishes[] = [$product, $service, $facts, $batch, $planned];
            }
        }

        return [$dishes, $waits];
    }

    private static function facts(Fields $dish): ?DishFacts
    {
        $kept = json_decode(json_encode($dish->object('facts')?->unknown() ?? [], \JSON_THROW_ON_ERROR), true);
        $facts = \is_array($kept) ? DishFacts::tryOf($kept) : null;
        if ($facts === null) {
            $dish->wrong('facts', 'are none of a dish: write them as they were exported');
        }

        return $facts;
    }

    private static function moments(Fields $dish): ?PlannedMoments
    {
        $said = $dish->has('planned') ? $dish->object('planned')?->unknown() : null;
        if ($said === null) {
            return null;
        }
        $numbers = array_filter($said, \is_int(...));
        $kept = [];
        foreach (['load', 'earliest', 'likely', 'latest', 'serve', 'served'] as $name) {
            if (!isset($numbers[$name])) {
                $dish->wrong('planned', 'must say load, earliest, likely, latest, serve and served as whole numbers');

                return null;
            }
            $kept[$name] = $numbers[$name];
        }

        return PlannedMoments::of($kept);
    }

    private function isHere(Site $site, Uuid $id, string $name, Service $first): bool
    {
        if ($this->entities->find(Plan::class, $id) !== null) {
            return true;
        }
        foreach ($this->entities->getRepository(Plan::class)->findBy(['site' => $site, 'name' => $name]) as $plan) {
            if ($plan->first()->epoch === $first->at->epoch) {
                return true;
            }
        }

        return false;
    }

    private function isPlanned(Batch $batch): bool
    {
        return $this->entities->getRepository(PlannedDish::class)->findOneBy(['batch' => $batch]) !== null;
    }

    private function product(Site $site, string $name): ?Product
    {
        return $this->entities->getRepository(Product::class)->findOneBy(['site' => $site, 'name' => $name]);
    }

    private static function placeOf(Plan $plan, string $service): int
    {
        foreach ($plan->services() as $place => $one) {
            if ($one->id === $service) {
                return $place;
            }
        }

        return 0;
    }
}
