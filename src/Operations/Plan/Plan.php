<?php

declare(strict_types=1);

namespace Verjuicer\App\Operations\Plan;

use Doctrine\ORM\Mapping as ORM;
use Symfony\Component\Uid\Uuid;
use Verjuicer\App\Site\People\Account;
use Verjuicer\App\Site\Site\Site;
use Verjuicer\Core\Measure\Instant;
use Verjuicer\Core\Plan\Shift;

/** What is to be cooked for one or more meals. A plan is no record: it may be changed, and nothing is judged by it. */
#[ORM\Entity]
#[ORM\Table(name: 'plan')]
class Plan
{
    #[ORM\Id]
    #[ORM\Column(type: 'uuid')]
    public Uuid $id; // not readonly: Doctrine writes it twice into a lazily loaded object

    #[ORM\Column]
    public bool $isRetired = false;

    /** @var list<array{id: string, name: string, at: int, guests: int}> */
    #[ORM\Column(type: 'json')]
    private array $services = [];

    /** @var list<array{who: string, from: int, to: int}> */
    #[ORM\Column(type: 'json')]
    private array $shifts = [];

    #[ORM\Column(type: 'datetimetz_immutable')]
    private \DateTimeImmutable $beginsAt;

    #[ORM\Column(type: 'datetimetz_immutable')]
    public readonly \DateTimeImmutable $madeAt;

    public function __construct(
        Uuid $id,
        #[ORM\ManyToOne] #[ORM\JoinColumn(nullable: false)] public readonly Site $site,
        #[ORM\Column(length: 80)] public string $name,
        Service $first,
        #[ORM\ManyToOne] #[ORM\JoinColumn(nullable: false)] public readonly Account $madeBy,
        Instant $madeAt,
    ) {
        $this->id = $id;
        $this->madeAt = new \DateTimeImmutable($madeAt->rfc3339());
        $this->serve($first);
    }

    /** Adds a meal, or puts another in place of the one with its id. */
    public function serve(Service $service): void
    {
        $all = array_column($this->services, null, 'id');
        $all[$service->id] = [
            'id' => $service->id,
            'name' => $service->name,
            'at' => $service->at->epoch,
            'guests' => $service->guests,
        ];
        usort($all, static fn (array $one, array $other): int => $one['at'] <=> $other['at']);
        $this->services = $all;
        $this->beginsAt = new \DateTimeImmutable('@'.$all[0]['at']);
    }

    /** @return non-empty-list<Service> in the order of time */
    public function services(): array
    {
        $services = array_map(
            static fn (array $one): Service => new Service(
                $one['id'],
                $one['name'],
                Instant::ofEpoch($one['at']),
                $one['guests'],
            ),
            $this->services,
        );

        return $services === [] ? throw new \LogicException('A plan is for a meal.') : $services;
    }

    public function service(string $id): Service
    {
        foreach ($this->services() as $service) {
            if ($service->id === $id) {
                return $service;
            }
        }

        return $this->services()[0];
    }

    public function first(): Instant
    {
        return Instant::ofEpoch($this->beginsAt->getTimestamp());
    }

    public function last(): Instant
    {
        $services = $this->services();

        return $services[\count($services) - 1]->at;
    }

    /** @return list<Shift> */
    public function shifts(): array
    {
        return array_map(
            static fn (array $one): Shift => new Shift(
                $one['who'],
                Instant::ofEpoch($one['from']),
                Instant::ofEpoch($one['to']),
            ),
            $this->shifts,
        );
    }

    /** @param list<Shift> $shifts all of them */
    public function staff(array $shifts): void
    {
        $this->shifts = array_map(
            static fn (Shift $one): array => [
                'who' => $one->who,
                'from' => $one->from->epoch,
                'to' => $one->to->epoch,
            ],
            $shifts,
        );
    }
}
