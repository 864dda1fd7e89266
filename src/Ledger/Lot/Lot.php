<?php

declare(strict_types=1);

namespace Verjuicer\App\Ledger\Lot;

use Doctrine\ORM\Mapping as ORM;
use Symfony\Component\Uid\Uuid;
use Verjuicer\App\Catalogue\Product\Product;
use Verjuicer\App\Catalogue\Supplier\Supplier;
use Verjuicer\App\Site\People\Account;
use Verjuicer\App\Site\Site\Site;
use Verjuicer\Core\Json\DocumentProblems;
use Verjuicer\Core\Json\Fields;
use Verjuicer\Core\Measure\Instant;
use Verjuicer\Core\Measure\Temperature;

/** A delivery of a supplier under one number, as received. Later events are in the site's log. */
#[ORM\Entity]
#[ORM\Table(name: 'lot')]
class Lot
{
    /** @var array<string, int|float>|null */
    #[ORM\Column(type: 'json', nullable: true)]
    private readonly ?array $temp;

    public function __construct(
        // Not readonly: Doctrine writes it twice into a lazily loaded object.
        #[ORM\Id] #[ORM\Column(type: 'uuid')] public Uuid $id,
        #[ORM\ManyToOne] #[ORM\JoinColumn(nullable: false)] public readonly Site $site,
        #[ORM\Column(type: 'uuid')] public readonly Uuid $deliveryId,
        #[ORM\ManyToOne] #[ORM\JoinColumn(nullable: false)] public readonly Supplier $supplier,
        #[ORM\ManyToOne] #[ORM\JoinColumn(nullable: false)] public readonly Product $product,
        #[ORM\Column] public readonly string $number,
        #[ORM\Column] public readonly int $pieces,
        #[ORM\Column] public readonly int $grams,
        #[ORM\Column(nullable: true)] public readonly ?int $priceCents,
        #[ORM\Column] public readonly bool $isFrozen,
        ?Temperature $temp,
        #[ORM\Column(nullable: true)] public readonly ?string $thermometer,
        #[ORM\Column(type: 'date_immutable', nullable: true)] public readonly ?\DateTimeImmutable $useBy,
        #[ORM\Column] public readonly bool $isAccepted,
        #[ORM\Column(nullable: true)] public readonly ?string $reason,
        #[ORM\Column(type: 'datetimetz_immutable')] private readonly \DateTimeImmutable $at,
        #[ORM\Column(type: 'datetimetz_immutable')] private readonly \DateTimeImmutable $recordedAt,
        #[ORM\ManyToOne] #[ORM\JoinColumn(nullable: false)] public readonly Account $account,
    ) {
        $this->temp = $temp === null ? null : [$temp->unit->member() => $temp->tenths / 10];
    }

    public function temperature(): ?Temperature
    {
        if ($this->temp === null) {
            return null;
        }
        $fields = new Fields((object) ['temp' => (object) $this->temp], null, '', new DocumentProblems());

        return $fields->temperature('temp');
    }

    public function at(): Instant
    {
        return Instant::ofEpoch($this->at->getTimestamp());
    }

    public function recordedAt(): Instant
    {
        return Instant::ofEpoch($this->recordedAt->getTimestamp());
    }

    /** Of one piece, rounded down so that no roast counts as heavier than it is. */
    public function gramsOfOne(): int
    {
        return max(1, intdiv($this->grams, $this->pieces));
    }
}
