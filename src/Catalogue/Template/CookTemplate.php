<?php

declare(strict_types=1);

namespace Verjuicer\App\Catalogue\Template;

use Doctrine\ORM\Mapping as ORM;
use Symfony\Component\Uid\Uuid;
use Verjuicer\App\Site\Site\Site;

/** The reminders a batch can begin with: a school of cooking, in its own words. */
#[ORM\Entity]
#[ORM\Table(name: 'cook_template')]
class CookTemplate
{
    #[ORM\Id]
    #[ORM\Column(type: 'uuid')]
    public Uuid $id; // not readonly: Doctrine writes it twice into a lazily loaded object

    #[ORM\Column]
    public bool $isRetired = false;

    /** @param list<string> $lines one reminder each, such as "spritz every 30" */
    public function __construct(
        #[ORM\ManyToOne] #[ORM\JoinColumn(nullable: false)] public readonly Site $site,
        #[ORM\Column] public string $name,
        #[ORM\Column(type: 'json')] public array $lines,
    ) {
        $this->id = Uuid::v7();
    }

    public function copiedTo(Site $site): self
    {
        return new self($site, $this->name, $this->lines);
    }
}
