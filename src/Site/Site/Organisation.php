<?php

declare(strict_types=1);

namespace Verjuicer\App\Site\Site;

use Doctrine\ORM\Mapping as ORM;
use Symfony\Component\Uid\Uuid;

/** The owner of sites: they share possible staff, and an owner's view of all. */
#[ORM\Entity]
#[ORM\Table(name: 'organisation')]
class Organisation
{
    #[ORM\Id]
    #[ORM\Column(type: 'uuid')]
    public Uuid $id; // not readonly: Doctrine writes it twice into a lazily loaded object

    public function __construct(#[ORM\Column] public string $name)
    {
        $this->id = Uuid::v7();
    }
}
