<?php

declare(strict_types=1);

namespace Verjuicer\App\Site\Site;

use Doctrine\ORM\Mapping as ORM;
use Symfony\Component\Uid\Uuid;
use Verjuicer\Core\Measure\TemperatureUnit;
use Verjuicer\Core\Measure\Zone;

/** A kitchen: its clock, its unit and the code it works under. */
#[ORM\Entity]
#[ORM\Table(name: 'site')]
class Site
{
    #[ORM\Id]
    #[ORM\Column(type: 'uuid')]
    public Uuid $id; // not readonly: Doctrine writes it twice into a lazily loaded object

    #[ORM\Column(length: 8)]
    public AllergenList $allergenList = AllergenList::Us9;

    /** Whether the menu carries the consumer advisory, so that food undercooked by intent may be served. */
    #[ORM\Column]
    public bool $hasAdvisory = false;

    /** Whether it serves a highly susceptible population: then nothing is undercooked by intent. */
    #[ORM\Column]
    public bool $isSusceptible = false;

    /** How many months every record is kept at the least. */
    #[ORM\Column]
    public int $keepMonths = 24;

    /** What asks for it: a section of the local code, an order, a plan. */
    #[ORM\Column(type: 'text')]
    public string $keepBasis = '';

    private ?Zone $zone = null;

    public function __construct(
        #[ORM\Column] public readonly string $name,
        #[ORM\Column] public readonly string $timezone,
        #[ORM\Column(length: 1)] public readonly TemperatureUnit $unit,
        #[ORM\Column(nullable: true)] public readonly ?int $elevationM,
        #[ORM\Column] public readonly string $ruleSet,
    ) {
        $this->id = Uuid::v7();
    }

    public function mayUndercook(): bool
    {
        return $this->hasAdvisory && !$this->isSusceptible;
    }

    public function zone(): Zone
    {
        return $this->zone ??= Zone::named($this->timezone);
    }
}
