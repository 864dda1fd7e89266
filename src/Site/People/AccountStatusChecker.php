<?php

declare(strict_types=1);

namespace Verjuicer\App\Site\People;

use Symfony\Component\Security\Core\Authentication\Token\TokenInterface;
use Symfony\Component\Security\Core\Exception\DisabledException;
use Symfony\Component\Security\Core\User\UserCheckerInterface;
use Symfony\Component\Security\Core\User\UserInterface;

/** Who has left does not log in; the answer is that to a wrong password. */
final class AccountStatusChecker implements UserCheckerInterface
{
    public function checkPreAuth(UserInterface $user): void
    {
    }

    public function checkPostAuth(UserInterface $user, ?TokenInterface $token = null): void
    {
        // After the password, so that both take the same time.
        if ($user instanceof Account && $user->isDisabled()) {
            throw new DisabledException();
        }
    }
}
