<?php

declare(strict_types=1);

namespace Verjuicer\App\Catalogue\Holding;

use Doctrine\ORM\Mapping as ORM;
use Symfony\Component\Uid\Uuid;
use Verjuicer\App\Site\Site\Site;
use Verjuicer\Core\Food\Holding;

/** A steam table, a cabinet, a chafing dish, a carrier: where food is held hot, and how often it is checked there. */
#[ORM\Entity]
#[ORM\Table(name: 'hold_unit')]
class HoldUnit
{
    /** Kinds of hot-holding units. */
    public const KINDS = [Holding::SteamTable, Holding::Cabinet, Holding::ChafingDish, Holding::Carrier];

    #[ORM\Id]
    #[ORM\Column(type: 'uuid')]
    public Uuid $id; // not readonly: Doctrine writes it twice into a lazily loaded object

    public function __construct(
        #[ORM\ManyToOne] #[ORM\JoinColumn(nullable: false)] public readonly Site $site,
        #[ORM\Column] public readonly string $name,
        #[ORM\Column(length: 16)] public readonly Holding $kind,
        #[ORM\Column] public readonly int $checkMinutes,
    ) {
        $this->id = Uuid::v7();
    }
}
