<?php

declare(strict_types=1);

namespace Verjuicer\App\Catalogue\Pit;

use Doctrine\ORM\Mapping as ORM;
use Symfony\Component\Uid\Uuid;
use Verjuicer\App\Site\Site\Site;
use Verjuicer\Core\Food\Oven;

/** A pit or an oven of the site, by the short name the crew calls it. */
#[ORM\Entity]
#[ORM\Table(name: 'pit')]
class Pit
{
    #[ORM\Id]
    #[ORM\Column(type: 'uuid')]
    public Uuid $id; // not readonly: Doctrine writes it twice into a lazily loaded object

    public function __construct(
        #[ORM\ManyToOne] #[ORM\JoinColumn(nullable: false)] public readonly Site $site,
        #[ORM\Column] public readonly string $name,
        /** As the roast table tells ovens apart. */
        #[ORM\Column(length: 16)] public readonly Oven $kind,
        #[ORM\Column(nullable: true)] public readonly ?int $capacityKg,
    ) {
        $this->id = Uuid::v7();
    }
}
