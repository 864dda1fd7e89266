<?php

declare(strict_types=1);

namespace Verjuicer\App\Site\People;

use Symfony\Bundle\SecurityBundle\Security;
use Symfony\Component\Security\Core\Exception\AccessDeniedException;

/** Who is at the screen. */
final readonly class CurrentAccount
{
    public function __construct(private Security $security)
    {
    }

    /** @throws AccessDeniedException without a login */
    public function get(): Account
    {
        $account = $this->security->getUser();

        return $account instanceof Account ? $account : throw new AccessDeniedException();
    }
}
