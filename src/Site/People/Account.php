<?php

declare(strict_types=1);

namespace Verjuicer\App\Site\People;

use Doctrine\ORM\Mapping as ORM;
use Symfony\Component\Security\Core\User\EquatableInterface;
use Symfony\Component\Security\Core\User\PasswordAuthenticatedUserInterface;
use Symfony\Component\Security\Core\User\UserInterface;
use Symfony\Component\Uid\Uuid;
use Verjuicer\App\Site\Site\Site;

/** A person's account in a site; their initials sign every entry they make, also after they have left. */
#[ORM\Entity]
#[ORM\Table(name: 'account')]
class Account implements UserInterface, PasswordAuthenticatedUserInterface, EquatableInterface
{
    #[ORM\Id]
    #[ORM\Column(type: 'uuid')]
    public Uuid $id; // not readonly: Doctrine writes it twice into a lazily loaded object

    #[ORM\Column(type: 'datetimetz_immutable', nullable: true)]
    public ?\DateTimeImmutable $disabledAt = null;

    /** Of the digits they type on a shared tablet; null where they have none. */
    #[ORM\Column(nullable: true)]
    public ?string $pinHash = null;

    /** Languages they read and speak, in words. */
    #[ORM\Column(type: 'text')]
    public string $languages = '';

    /** @var list<self> who the same person is in other sites, where that was asked for */
    public array $elsewhere = [];

    /** Of one that comes out of a session. */
    private ?Uuid $siteId = null;
    private bool $hasSite = true;

    public function __construct(
        #[ORM\ManyToOne(fetch: 'EAGER')] #[ORM\JoinColumn(nullable: false)] public readonly Site $site,
        #[ORM\ManyToOne(fetch: 'EAGER', cascade: ['persist'])]
        #[ORM\JoinColumn(nullable: false)]
        public readonly Person $person,
        #[ORM\Column] public string $name,
        #[ORM\Column(length: 8)] public readonly string $initials,
        #[ORM\Column(length: 16)] public Role $role,
    ) {
        $this->id = Uuid::v7();
    }

    public function siteId(): Uuid
    {
        return $this->siteId ?? $this->site->id;
    }

    /** Whether it says of which site it is. */
    public function hasSite(): bool
    {
        return $this->hasSite;
    }

    public function isDisabled(): bool
    {
        return $this->disabledAt !== null;
    }

    public function hasPassword(): bool
    {
        return $this->person->password !== '';
    }

    public function getPassword(): ?string
    {
        return $this->person->password === '' ? null : $this->person->password;
    }

    /** @return list<string> */
    public function getRoles(): array
    {
        return [$this->role->securityRole()];
    }

    /** @return non-empty-string */
    public function getUserIdentifier(): string
    {
        \assert($this->person->login !== '');

        return $this->person->login;
    }

    /** Asked on every request of the account a session was begun with: where it differs the session is over. */
    public function isEqualTo(UserInterface $user): bool
    {
        return $user instanceof self
            && !$user->isDisabled()
            && $user->person->sessionRound === $this->person->sessionRound
            && $user->person->password === $this->person->password
            && $user->role === $this->role;
    }

    /** @return array<string, mixed> the fields a session needs */
    public function __serialize(): array
    {
        return ['id' => $this->id, 'site' => $this->siteId(), 'person' => $this->person, 'role' => $this->role];
    }

    /**
     * @param array{id: Uuid, site?: Uuid, person?: Person, role: Role} $data one of a version before the sites has
     *     neither site nor person: its session is over
     */
    public function __unserialize(array $data): void
    {
        $this->id = $data['id'];
        $this->siteId = $data['site'] ?? null;
        $this->hasSite = isset($data['site']);
        $this->person = $data['person'] ?? new Person('');
        $this->role = $data['role'];
    }

    public function eraseCredentials(): void
    {
    }
}
