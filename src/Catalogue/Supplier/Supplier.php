<?php

declare(strict_types=1);

namespace Verjuicer\App\Catalogue\Supplier;

use Doctrine\ORM\Mapping as ORM;
use Symfony\Component\Uid\Uuid;
use Verjuicer\App\Site\Site\Site;

/** Who delivers. */
#[ORM\Entity]
#[ORM\Table(name: 'supplier')]
class Supplier
{
    #[ORM\Id]
    #[ORM\Column(type: 'uuid')]
    public Uuid $id; // not readonly: Doctrine writes it twice into a lazily loaded object

    public function __construct(
        #[ORM\ManyToOne] #[ORM\JoinColumn(nullable: false)] public readonly Site $site,
        #[ORM\Column] public readonly string $name,
    ) {
        $this->id = Uuid::v7();
    }
}
