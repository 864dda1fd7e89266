<?php

declare(strict_types=1);

namespace Verjuicer\App\Site\People;

use Symfony\Component\Security\Core\Exception\AuthenticationException;

/** The password was right, the code of the authenticator was not, or was not there. */
final class SecondFactorNeeded extends AuthenticationException
{
    public const MESSAGE = 'second_factor';

    public function getMessageKey(): string
    {
        return self::MESSAGE;
    }
}
