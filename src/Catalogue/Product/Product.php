<?php

declare(strict_types=1);

namespace Verjuicer\App\Catalogue\Product;

use Doctrine\ORM\Mapping as ORM;
use Symfony\Component\Uid\Uuid;
use Verjuicer\App\Site\Site\Site;
use Verjuicer\Core\Food\Animal;
use Verjuicer\Core\Food\Form;
use Verjuicer\Core\Food\Integrity;
use Verjuicer\Core\Measure\Instant;
use Verjuicer\Core\Measure\Temperature;
use Verjuicer\Core\Measure\TemperatureUnit;

/** A product of the site. A batch copies the facts that rules need, so that a later edit never changes a record. */
#[ORM\Entity]
#[ORM\Table(name: 'product')]
class Product
{
    /** The spot of a product that names none. */
    public const SPOT = 'core';

    #[ORM\Id]
    #[ORM\Column(type: 'uuid')]
    public Uuid $id; // not readonly: Doctrine writes it twice into a lazily loaded object

    #[ORM\Column]
    public string $wrap = '';

    #[ORM\Column]
    public string $rest = '';

    /** Hundredths of the purchase that are served at least, if entered; then the most, too. */
    #[ORM\Column(nullable: true)]
    public ?int $yieldLeast = null;

    #[ORM\Column(nullable: true)]
    public ?int $yieldMost = null;

    /** @var list<string> preserving treatments (`Treatment`) */
    #[ORM\Column(type: 'json')]
    public array $treatments = [];

    #[ORM\Column]
    public bool $isRetired = false;

    /** Cooks begun before are not heard by plans; null where all are. */
    #[ORM\Column(type: 'datetimetz_immutable', nullable: true)]
    private ?\DateTimeImmutable $heardSince = null;

    /** @var array{}|array{from: int, to: int, unit: string, feel: string} temperatures in tenths */
    #[ORM\Column(type: 'json')]
    private array $doneness = [];

    /** @param list<array{name: string, where: string}> $spots worth probing */
    public function __construct(
        #[ORM\ManyToOne] #[ORM\JoinColumn(nullable: false)] public readonly Site $site,
        #[ORM\Column] public string $name,
        #[ORM\Column(length: 16)] public Animal $animal,
        #[ORM\Column(length: 16)] public Form $form,
        #[ORM\Column(length: 16)] public Integrity $integrity,
        #[ORM\Column(nullable: true)] public ?int $usualGrams,
        #[ORM\Column(type: 'json')] public array $spots = [],
    ) {
        $this->id = Uuid::v7();
    }

    public function copiedTo(Site $site): self
    {
        $copy = new self(
            $site,
            $this->name,
            $this->animal,
            $this->form,
            $this->integrity,
            $this->usualGrams,
            $this->spots,
        );
        $copy->wrap = $this->wrap;
        $copy->rest = $this->rest;
        [$copy->yieldLeast, $copy->yieldMost] = [$this->yieldLeast, $this->yieldMost];
        $copy->doneness = $this->doneness;
        $copy->treatments = $this->treatments;

        return $copy;
    }

    /** The default spot of a reading: the product's first, or the format's own. */
    public function firstSpot(): string
    {
        return $this->spots[0]['name'] ?? self::SPOT;
    }

    /** In the unit of the kitchen, to whole degrees where it was given in the other one. */
    public function doneness(): ?Doneness
    {
        if ($this->doneness === []) {
            return null;
        }
        $unit = TemperatureUnit::from($this->doneness['unit']);

        return new Doneness(
            $this->inKitchensUnit(Temperature::ofTenths($this->doneness['from'], $unit)),
            $this->inKitchensUnit(Temperature::ofTenths($this->doneness['to'], $unit)),
            $this->doneness['feel'],
        );
    }

    private function inKitchensUnit(Temperature $temperature): Temperature
    {
        return $temperature->unit === $this->site->unit
            ? $temperature
            : $temperature->goalInOtherUnit();
    }

    public function heardSince(): ?Instant
    {
        return $this->heardSince === null ? null : Instant::ofEpoch($this->heardSince->getTimestamp());
    }

    /** @param Instant|null $since null to hear all cooks again */
    public function hear(?Instant $since): void
    {
        $this->heardSince = $since === null ? null : new \DateTimeImmutable($since->rfc3339());
    }

    public function liked(?Doneness $doneness): void
    {
        $this->doneness =
            $doneness === null
                ? []
                : [
                    'from' => $doneness->from->tenths,
                    'to' => $doneness->to->tenths,
                    'unit' => $doneness->from->unit->value,
                    'feel' => $doneness->feel,
                ];
    }
}
