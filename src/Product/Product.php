<?php

declare(strict_types=1);

namespace Verjuicer\App\Product;

use Doctrine\ORM\Mapping as ORM;
use Symfony\Component\Uid\Uuid;
use Verjuicer\App\Site\Site;
use Verjuicer\Core\Record\Animal;
use Verjuicer\Core\Record\Form;
use Verjuicer\Core\Record\Integrity;

/** Something the site smokes; a batch copies what the rules ask of it, so that a later edit never changes a record. */
#[ORM\Entity]
#[ORM\Table(name: 'product')]
class Product
{
    #[ORM\Id]
    #[ORM\Column(type: 'uuid')]
    public Uuid $id; // not readonly: Doctrine writes it twice into a lazily loaded object

    /** @param list<string> $spots worth probing, besides the core of each piece */
    public function __construct(
        #[ORM\ManyToOne]
        #[ORM\JoinColumn(nullable: false)]
        public readonly Site $site,
        #[ORM\Column]
        public readonly string $name,
        #[ORM\Column(length: 16)]
        public readonly Animal $animal,
        #[ORM\Column(length: 16)]
        public readonly Form $form,
        #[ORM\Column(length: 16)]
        public readonly Integrity $integrity,
        #[ORM\Column(nullable: true)]
        public readonly ?int $usualGrams,
        #[ORM\Column(type: 'json')]
        public readonly array $spots = [],
    ) {
        $this->id = Uuid::v7();
    }
}
