<?php

declare(strict_types=1);

namespace Verjuicer\App\Site\Device;

use Symfony\Bundle\SecurityBundle\Security;
use Symfony\Component\EventDispatcher\Attribute\AsEventListener;
use Symfony\Component\HttpFoundation\RedirectResponse;
use Symfony\Component\HttpFoundation\Response;
use Symfony\Component\HttpKernel\Event\RequestEvent;
use Symfony\Component\Routing\Generator\UrlGeneratorInterface;
use Symfony\Component\Security\Http\SecurityRequestAttributes;
use Verjuicer\App\Site\People\RecentPasswordListener;

/** On a registered tablet the login is names and PINs; once the tablet is revoked, its sessions are over. */
final readonly class SharedTabletListener
{
    /** Asked for on the page of names: the form with a name and a password. */
    private const WITH_PASSWORD = 'password';
    /** A password that was just wrong: the form says so. */
    private const FAILED = SecurityRequestAttributes::AUTHENTICATION_ERROR;

    public function __construct(
        private Devices $devices,
        private Security $security,
        private UrlGeneratorInterface $urls,
    ) {
    }

    /** After the firewall, which says who it is. */
    #[AsEventListener(priority: 4)]
    public function onRequest(RequestEvent $event): void
    {
        $request = $event->getRequest();
        $token = $event->isMainRequest() ? $this->security->getToken() : null;
        if ($token !== null && $token->hasAttribute(RecentPasswordListener::BY_PIN)) {
            if ($this->devices->ofRequest($request)?->id !== $token->getAttribute(RecentPasswordListener::BY_PIN)) {
                $this->security->logout(false);
                $event->setResponse($this->to('login'));
            }

            return;
        }
        $isLogin = $request->attributes->get('_route') === 'login' && $request->isMethod('GET');
        if (
            $token === null
            && $isLogin
            && !$request->query->has(self::WITH_PASSWORD)
            && !($request->hasPreviousSession() && $request->getSession()->has(self::FAILED))
            && $this->devices->ofRequest($request) !== null
        ) {
            $event->setResponse($this->to('who'));
        }
    }

    private function to(string $route): Response
    {
        return new RedirectResponse($this->urls->generate($route), Response::HTTP_SEE_OTHER);
    }
}
