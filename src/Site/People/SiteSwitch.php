<?php

declare(strict_types=1);

namespace Verjuicer\App\Site\People;

use Doctrine\ORM\EntityManagerInterface;
use Symfony\Bundle\SecurityBundle\Security;
use Verjuicer\App\Site\Tenancy\Tenant;

/** Switches to another site of the same person without a new login, and without extending the session. */
final readonly class SiteSwitch
{
    public function __construct(
        private Security $security,
        private EntityManagerInterface $entities,
        private Tenant $tenant,
    ) {
    }

    /** @param Account $account one of the same person */
    public function to(Account $account): void
    {
        $before = $this->security->getToken();
        $this->tenant->enter($account->siteId(), $account->person->id);
        $account->person->lastAccountId = $account->id;
        $this->entities->flush();
        $this->security->login($account, 'form_login', 'main');
        foreach ($before?->getAttributes() ?? [] as $name => $value) {
            $this->security->getToken()?->setAttribute($name, $value);
        }
    }
}
