<?php

declare(strict_types=1);

namespace Verjuicer\App\Catalogue\Template;

use Doctrine\ORM\EntityManagerInterface;
use Symfony\Component\Uid\Uuid;
use Verjuicer\App\Site\Site\Site;

/** The templates of a site. */
final readonly class CookTemplates
{
    public function __construct(private EntityManagerInterface $entities)
    {
    }

    /** @return list<CookTemplate> */
    public function of(Site $site): array
    {
        return $this->entities
            ->getRepository(CookTemplate::class)
            ->findBy(['site' => $site, 'isRetired' => false], ['name' => 'ASC']);
    }

    public function find(Site $site, string $id): ?CookTemplate
    {
        $template = Uuid::isValid($id) ? $this->entities->find(CookTemplate::class, Uuid::fromString($id)) : null;

        return $template !== null && $template->site->id->equals($site->id) ? $template : null;
    }

    public function add(CookTemplate $template): void
    {
        $this->entities->persist($template);
        $this->entities->flush();
    }

    public function retire(CookTemplate $template): void
    {
        $template->isRetired = true;
        $this->entities->flush();
    }
}
