<?php

declare(strict_types=1);

namespace Verjuicer\App\Site\People;

use Doctrine\ORM\Mapping as ORM;
use Symfony\Component\Security\Core\User\PasswordAuthenticatedUserInterface;
use Symfony\Component\Security\Core\User\UserInterface;
use Symfony\Component\Uid\Uuid;
use Verjuicer\App\Site\Site\Site;

/** A person of a site; their initials sign every entry they make. */
#[ORM\Entity]
#[ORM\Table(name: 'account')]
class Account implements UserInterface, PasswordAuthenticatedUserInterface
{
    #[ORM\Id]
    #[ORM\Column(type: 'uuid')]
    public Uuid $id; // not readonly: Doctrine writes it twice into a lazily loaded object

    #[ORM\Column]
    private string $password = '';

    public function __construct(
        #[ORM\ManyToOne(fetch: 'EAGER')] #[ORM\JoinColumn(nullable: false)] public readonly Site $site,
        #[ORM\Column(unique: true)] public readonly string $login,
        #[ORM\Column] public readonly string $name,
        #[ORM\Column(length: 8)] public readonly string $initials,
        #[ORM\Column(length: 16)] public readonly Role $role,
    ) {
        $this->id = Uuid::v7();
    }

    public function setHashedPassword(string $hash): void
    {
        $this->password = $hash;
    }

    public function getPassword(): string
    {
        return $this->password;
    }

    /** @return list<string> */
    public function getRoles(): array
    {
        return [$this->role->securityRole()];
    }

    /** @return non-empty-string */
    public function getUserIdentifier(): string
    {
        \assert($this->login !== '');

        return $this->login;
    }

    public function eraseCredentials(): void
    {
    }
}
