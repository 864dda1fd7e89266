<?php

declare(strict_types=1);

namespace Verjuicer\App\Site\People;

use Symfony\Bundle\SecurityBundle\Security;
use Symfony\Component\EventDispatcher\Attribute\AsEventListener;
use Symfony\Component\HttpFoundation\RedirectResponse;
use Symfony\Component\HttpFoundation\Session\FlashBagAwareSessionInterface;
use Symfony\Component\HttpKernel\Event\RequestEvent;
use Symfony\Component\Routing\Generator\UrlGeneratorInterface;

/** Where a site asks its managers for a second factor, one without it sees the page that turns it on, and no other. */
final readonly class SecondFactorDemand
{
    /** Another site of theirs may not ask for one. */
    private const OPEN = ['factor', 'factor_on', 'site_enter', 'logout', 'login', 'theme', 'units', 'language'];

    public function __construct(private Security $security, private UrlGeneratorInterface $urls)
    {
    }

    #[AsEventListener(priority: 5)]
    public function check(RequestEvent $event): void
    {
        $account = $this->security->getUser();
        $route = $event->getRequest()->attributes->getString('_route');
        if (
            !$event->isMainRequest()
            || !$account instanceof Account
            || !$account->role->manages()
            || !$account->site->asksSecondFactor
            || $account->person->factorSecret !== null
            || \in_array($route, self::OPEN, true)
        ) {
            return;
        }
        $session = $event->getRequest()->getSession();
        if ($session instanceof FlashBagAwareSessionInterface) {
            $session->getFlashBag()->set('done', ['factor.needed']);
        }
        $event->setResponse(new RedirectResponse($this->urls->generate('factor')));
    }
}
