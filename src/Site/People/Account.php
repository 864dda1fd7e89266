<?php

declare(strict_types=1);

namespace Verjuicer\App\Site\People;

use Doctrine\ORM\Mapping as ORM;
use Symfony\Component\Security\Core\User\EquatableInterface;
use Symfony\Component\Security\Core\User\PasswordAuthenticatedUserInterface;
use Symfony\Component\Security\Core\User\UserInterface;
use Symfony\Component\Uid\Uuid;
use Verjuicer\App\Site\Site\Site;

/** A person of a site; their initials sign every entry they make, also after they have left. */
#[ORM\Entity]
#[ORM\Table(name: 'account')]
class Account implements UserInterface, PasswordAuthenticatedUserInterface, EquatableInterface
{
    #[ORM\Id]
    #[ORM\Column(type: 'uuid')]
    public Uuid $id; // not readonly: Doctrine writes it twice into a lazily loaded object

    #[ORM\Column(type: 'datetimetz_immutable', nullable: true)]
    public ?\DateTimeImmutable $disabledAt = null;

    /** Sessions begun in an earlier round are over. */
    #[ORM\Column]
    public int $sessionRound = 0;

    /** Of the digits they type on a shared tablet; null where they have none. */
    #[ORM\Column(nullable: true)]
    public ?string $pinHash = null;

    /** Of their authenticator (RFC 6238), in base 32; null where they have none. */
    #[ORM\Column(nullable: true)]
    public ?string $factorSecret = null;

    /** The last step of time whose code was used: no code is good twice. */
    #[ORM\Column(type: 'bigint')]
    public int $factorStep = 0;

    /** @var list<string> SHA-256 of what lets them in once without their authenticator */
    #[ORM\Column(type: 'json')]
    public array $recoveryHashes = [];

    /** SHA-256 of the one-time link they were invited by. */
    #[ORM\Column(nullable: true)]
    public ?string $inviteHash = null;

    #[ORM\Column(type: 'datetimetz_immutable', nullable: true)]
    public ?\DateTimeImmutable $inviteUntil = null;

    #[ORM\Column]
    private string $password = '';

    public function __construct(
        #[ORM\ManyToOne(fetch: 'EAGER')] #[ORM\JoinColumn(nullable: false)] public readonly Site $site,
        #[ORM\Column(unique: true)] public readonly string $login,
        #[ORM\Column] public string $name,
        #[ORM\Column(length: 8)] public readonly string $initials,
        #[ORM\Column(length: 16)] public Role $role,
    ) {
        $this->id = Uuid::v7();
    }

    public function isDisabled(): bool
    {
        return $this->disabledAt !== null;
    }

    public function hasPassword(): bool
    {
        return $this->password !== '';
    }

    /** Whoever sets a password has used the link they came by. */
    public function setHashedPassword(string $hash): void
    {
        $this->password = $hash;
        $this->inviteHash = $this->inviteUntil = null;
    }

    /** Nobody can log in with it until a new one is set. */
    public function forgetPassword(): void
    {
        $this->password = '';
    }

    public function getPassword(): ?string
    {
        return $this->password === '' ? null : $this->password;
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

    /** Asked on every request of the account a session was begun with: where it differs the session is over. */
    public function isEqualTo(UserInterface $user): bool
    {
        return $user instanceof self
            && !$user->isDisabled()
            && $user->sessionRound === $this->sessionRound
            && $user->password === $this->password
            && $user->role === $this->role;
    }

    /** @return array<string, mixed> what a session needs of it, the site not among it */
    public function __serialize(): array
    {
        return [
            'id' => $this->id,
            'login' => $this->login,
            'password' => $this->password,
            'role' => $this->role,
            'sessionRound' => $this->sessionRound,
        ];
    }

    /** @param array{id: Uuid, login: string, password: string, role: Role, sessionRound: int} $data */
    public function __unserialize(array $data): void
    {
        $this->id = $data['id'];
        $this->login = $data['login'];
        $this->password = $data['password'];
        $this->role = $data['role'];
        $this->sessionRound = $data['sessionRound'];
    }

    public function eraseCredentials(): void
    {
    }
}
