<?php

declare(strict_types=1);

namespace Verjuicer\App\Site\Access;

use Symfony\Component\Security\Core\User\UserInterface;

/** The holder of a token: a sensor may only send, a reader only read. */
final readonly class TokenHolder implements UserInterface
{
    public const SENDS = 'ROLE_TOKEN_SENDS';
    public const READS = 'ROLE_TOKEN_READS';

    public function __construct(public AccessToken $token)
    {
    }

    /** @return list<string> */
    public function getRoles(): array
    {
        return [$this->token->sensorId === null ? self::READS : self::SENDS];
    }

    public function eraseCredentials(): void
    {
    }

    public function getUserIdentifier(): string
    {
        return $this->token->id === '' ? throw new \LogicException('A token has an id.') : $this->token->id;
    }
}
