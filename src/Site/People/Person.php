<?php

declare(strict_types=1);

namespace Verjuicer\App\Site\People;

use Doctrine\ORM\Mapping as ORM;
use Symfony\Component\Uid\Uuid;
use Verjuicer\App\Platform\Wording\Language;

/** A person with their login; in each of their sites they have an account. */
#[ORM\Entity]
#[ORM\Table(name: 'person')]
class Person
{
    #[ORM\Id]
    #[ORM\Column(type: 'uuid')]
    public Uuid $id; // not readonly: Doctrine writes it twice into a lazily loaded object

    /** Sessions begun in an earlier round are over. */
    #[ORM\Column]
    public int $sessionRound = 0;

    /** Of their authenticator (RFC 6238), in base 32; null where they have none. */
    #[ORM\Column(nullable: true)]
    public ?string $factorSecret = null;

    /** The last step of time whose code was used: no code is good twice. */
    #[ORM\Column(type: 'bigint')]
    public int $factorStep = 0;

    /** @var list<string> SHA-256 of recovery codes, each valid once */
    #[ORM\Column(type: 'json')]
    public array $recoveryHashes = [];

    /** SHA-256 of the one-time link they were invited by. */
    #[ORM\Column(nullable: true)]
    public ?string $inviteHash = null;

    #[ORM\Column(type: 'datetimetz_immutable', nullable: true)]
    public ?\DateTimeImmutable $inviteUntil = null;

    /** In which of their sites they were last. */
    #[ORM\Column(type: 'uuid', nullable: true)]
    public ?Uuid $lastAccountId = null;

    #[ORM\Column]
    public string $password = '';

    /** In which they read; null for that of the browser. */
    #[ORM\Column(length: 2, nullable: true)]
    public ?Language $language = null;

    public function __construct(#[ORM\Column] public readonly string $login)
    {
        $this->id = Uuid::v7();
    }

    /** Setting a password uses up the invitation link. */
    public function setHashedPassword(string $hash): void
    {
        $this->password = $hash;
        $this->inviteHash = $this->inviteUntil = null;
    }

    /** @return array<string, mixed> the fields a session needs */
    public function __serialize(): array
    {
        return [
            'id' => $this->id,
            'login' => $this->login,
            'password' => $this->password,
            'sessionRound' => $this->sessionRound,
        ];
    }

    /** @param array{id: Uuid, login: string, password: string, sessionRound: int} $data */
    public function __unserialize(array $data): void
    {
        $this->id = $data['id'];
        $this->login = $data['login'];
        $this->password = $data['password'];
        $this->sessionRound = $data['sessionRound'];
    }
}
