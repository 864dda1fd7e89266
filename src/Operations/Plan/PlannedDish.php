<?php

declare(strict_types=1);

namespace Verjuicer\App\Operations\Plan;

use Doctrine\ORM\Mapping as ORM;
use Symfony\Component\Uid\Uuid;
use Verjuicer\App\Catalogue\Product\Product;
use Verjuicer\App\Ledger\Batch\Batch;
use Verjuicer\App\Site\Site\Site;
use Verjuicer\Core\Measure\Instant;

/**
 * One batch of a plan; once it is a real one, what was planned stays beside what was done.
 *
 * @phpstan-import-type Kept from DishFacts
 */
#[ORM\Entity]
#[ORM\Table(name: 'plan_dish')]
class PlannedDish
{
    #[ORM\Id]
    #[ORM\Column(type: 'uuid')]
    public Uuid $id; // not readonly: Doctrine writes it twice into a lazily loaded object

    #[ORM\ManyToOne]
    public ?Batch $batch = null;

    #[ORM\Column]
    public bool $isRemoved = false;

    /** @var Kept */
    #[ORM\Column(type: 'json')]
    private array $facts;

    /** @var array{load: int, earliest: int, likely: int, latest: int, serve: int, served: int}|null once it is real */
    #[ORM\Column(type: 'json', nullable: true)]
    private ?array $planned = null;

    public function __construct(
        Uuid $id,
        #[ORM\ManyToOne] #[ORM\JoinColumn(nullable: false)] public readonly Site $site,
        #[ORM\ManyToOne] #[ORM\JoinColumn(nullable: false)] public readonly Plan $plan,
        #[ORM\ManyToOne] #[ORM\JoinColumn(nullable: false)] public readonly Product $product,
        #[ORM\Column(length: 36)] public string $service,
        DishFacts $facts,
    ) {
        $this->id = $id;
        $this->change($facts);
    }

    public function facts(): DishFacts
    {
        return DishFacts::of($this->facts);
    }

    public function change(DishFacts $facts): void
    {
        $this->facts = $facts->kept();
    }

    public function serve(): Instant
    {
        return $this->plan->service($this->service)->at;
    }

    /** It is a real batch from now on; what was planned is kept as it was. */
    public function becomes(Batch $batch, PlannedMoments $moments): void
    {
        $this->batch = $batch;
        $this->planned = $moments->toArray();
    }

    public function planned(): ?PlannedMoments
    {
        return $this->planned === null ? null : PlannedMoments::of($this->planned);
    }
}
