<?php

declare(strict_types=1);

namespace Verjuicer\App\Catalogue\Thermometer;

use Doctrine\ORM\Mapping as ORM;
use Symfony\Component\Uid\Uuid;
use Verjuicer\App\Site\Site\Site;

/** A thermometer of the site, by the short name written on it. */
#[ORM\Entity]
#[ORM\Table(name: 'thermometer')]
class Thermometer
{
    #[ORM\Id]
    #[ORM\Column(type: 'uuid')]
    public Uuid $id; // not readonly: Doctrine writes it twice into a lazily loaded object

    #[ORM\Column(type: 'datetimetz_immutable', nullable: true)]
    public ?\DateTimeImmutable $retiredAt = null;

    public function __construct(
        #[ORM\ManyToOne] #[ORM\JoinColumn(nullable: false)] public readonly Site $site,
        #[ORM\Column(length: 16)] public readonly string $label,
        #[ORM\Column(length: 16)] public ThermometerKind $kind = ThermometerKind::Instant,
        #[ORM\Column] public string $serial = '',
        /** The range it measures, in words: "-58 to 572 °F". */
        #[ORM\Column] public string $measures = '',
        #[ORM\Column] public string $holder = '',
    ) {
        $this->id = Uuid::v7();
    }
}
