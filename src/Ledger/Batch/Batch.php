<?php

declare(strict_types=1);

namespace Verjuicer\App\Ledger\Batch;

use Doctrine\ORM\Mapping as ORM;
use Symfony\Component\Uid\Uuid;
use Verjuicer\App\Site\People\Account;
use Verjuicer\App\Site\Site\Site;
use Verjuicer\Core\Food\Animal;
use Verjuicer\Core\Food\Form;
use Verjuicer\Core\Food\Integrity;

/** Pieces cooked together: their unchanging facts. Everything else is in their events. */
#[ORM\Entity]
#[ORM\Table(name: 'batch')]
class Batch
{
    #[ORM\Column(updatable: false)]
    public string $productName;

    #[ORM\Column(length: 16, updatable: false)]
    public Animal $animal;

    #[ORM\Column(length: 16, updatable: false)]
    public Form $form;

    #[ORM\Column(length: 16, updatable: false)]
    public Integrity $integrity;

    #[ORM\Column]
    public readonly int $tag;

    #[ORM\Column(updatable: false)]
    public int $pieces;

    /** Of one piece, before cooking. */
    #[ORM\Column(nullable: true, updatable: false)]
    public ?int $rawGrams;

    #[ORM\Column(updatable: false)]
    public bool $isStuffed;

    #[ORM\Column(updatable: false)]
    public bool $isWild;

    #[ORM\Column(updatable: false)]
    public bool $hasAdvisory;

    #[ORM\ManyToOne(targetEntity: self::class)]
    public readonly ?self $parent;

    /** How far a portion shares its parent's record: the place of the event that divided it. */
    #[ORM\Column(type: 'bigint', nullable: true)]
    public readonly ?int $sharesUpTo;

    #[ORM\Column(nullable: true)]
    public readonly ?int $portionGrams;

    #[ORM\Column(nullable: true)]
    public readonly ?string $container;

    #[ORM\Column(nullable: true)]
    public readonly ?int $depthMm;

    /** @var list<int>|null the pieces that went their own way as this batch */
    #[ORM\Column(type: 'json', nullable: true)]
    public readonly ?array $pieceNumbers;

    /** @var list<string>|null preserving treatments (`Treatment`); null for none */
    #[ORM\Column(type: 'json', nullable: true)]
    public readonly ?array $treatments;

    public function __construct(
        // Not readonly: Doctrine writes it twice into a lazily loaded object.
        #[ORM\Id] #[ORM\Column(type: 'uuid')] public Uuid $id,
        #[ORM\ManyToOne] #[ORM\JoinColumn(nullable: false)] public readonly Site $site,
        #[ORM\Column(length: 32)] public readonly string $code,
        BatchPlan $plan,
        #[ORM\Column(length: 64)] public readonly string $ruleSet,
        #[ORM\Column(type: 'datetimetz_immutable')] public readonly \DateTimeImmutable $begunAt,
        #[ORM\ManyToOne] #[ORM\JoinColumn(nullable: false)] public readonly Account $begunBy,
    ) {
        $source = $plan->portioned?->parent;
        $this->productName = $source->productName ?? $plan->product->name;
        $this->animal = $source->animal ?? $plan->product->animal;
        $this->form = $source->form ?? $plan->product->form;
        $this->integrity = $source->integrity ?? $plan->product->integrity;
        $treatments = $source === null ? $plan->product->treatments : $source->treatments ?? [];
        $this->treatments = $treatments === [] ? null : $treatments;
        $this->tag = $plan->tag;
        $this->pieces = $plan->pieces;
        $this->rawGrams = $plan->rawGrams;
        $this->isStuffed = $plan->isStuffed;
        $this->isWild = $plan->isWild;
        $this->hasAdvisory = $plan->hasAdvisory;
        $this->parent = $plan->portioned?->parent;
        $this->sharesUpTo = $plan->portioned?->sharesUpTo;
        $this->portionGrams = $plan->portioned?->grams;
        $this->container = $plan->portioned?->container;
        $this->depthMm = $plan->portioned?->depthMm;
        $this->pieceNumbers = $plan->portioned->pieceNumbers ?? $plan->pieceNumbers;
    }

    /** The largest known weight: as a portion, or raw. Null if not recorded. */
    public function grams(): ?int
    {
        return $this->portionGrams ?? ($this->rawGrams === null ? null : $this->rawGrams * $this->pieces);
    }

    /** The batch it was all cooked in. */
    public function root(): self
    {
        return $this->parent?->root() ?? $this;
    }
}
