<?php

declare(strict_types=1);

namespace Verjuicer\App\Site\People;

use Symfony\Bundle\SecurityBundle\Security;
use Symfony\Component\DependencyInjection\Attribute\Autowire;
use Symfony\Component\EventDispatcher\Attribute\AsEventListener;
use Symfony\Component\HttpFoundation\Request;
use Symfony\Component\HttpFoundation\Response;
use Symfony\Component\HttpKernel\Event\ControllerEvent;
use Symfony\Component\PasswordHasher\Hasher\UserPasswordHasherInterface;
use Symfony\Component\RateLimiter\RateLimiterFactoryInterface;
use Symfony\Component\Security\Http\Event\LoginSuccessEvent;
use Twig\Environment;
use Verjuicer\App\Platform\Now;

/** Asks for the password on a page that keeps the submitted input, and continues with it once the password is right. */
final readonly class RecentPasswordListener
{
    public const CONFIRMED_AT = 'confirmed_at';
    /** The device of a login by PIN. */
    public const BY_PIN = 'by_pin';
    private const FIELD = '_password_again';
    private const SECONDS = 600;

    public function __construct(
        private Security $security,
        private UserPasswordHasherInterface $hasher,
        private Environment $twig,
        private PeopleLog $log,
        private Now $now,
        #[Autowire(service: 'limiter.login_name')] private RateLimiterFactoryInterface $tries,
    ) {
    }

    #[AsEventListener]
    public function loggedIn(LoginSuccessEvent $event): void
    {
        $event->getAuthenticatedToken()->setAttribute(self::CONFIRMED_AT, $this->now->instant()->epoch);
    }

    #[AsEventListener]
    public function ask(ControllerEvent $event): void
    {
        $account = $this->security->getUser();
        $token = $this->security->getToken();
        $isAgain = $event->getAttributes(RequiresRecentPassword::class) !== [];
        $isAsked = $isAgain || $event->getAttributes(DeniedToPin::class) !== [];
        if (!$isAsked || !$account instanceof Account || $token === null) {
            return;
        }
        if ($token->hasAttribute(self::BY_PIN)) {
            $page = new Response($this->twig->render('site/people/not_by_pin.html.twig'), Response::HTTP_FORBIDDEN);
            $event->setController(static fn (): Response => $page);

            return;
        }
        if (!$isAgain) {
            return;
        }
        $now = $this->now->instant()->epoch;
        $confirmed = $token->hasAttribute(self::CONFIRMED_AT) ? $token->getAttribute(self::CONFIRMED_AT) : 0;
        if (\is_int($confirmed) && $confirmed > $now - self::SECONDS) {
            return;
        }
        $given = $event->getRequest()->request->getString(self::FIELD);
        $isTried = $given !== '';
        if ($isTried && $this->mayTry($account) && $this->hasher->isPasswordValid($account, $given)) {
            $token->setAttribute(self::CONFIRMED_AT, $now);
            $event->getRequest()->request->remove(self::FIELD);

            return;
        }
        if ($isTried) {
            $this->log->note($account->siteId()->toRfc4122(), $account, 'password_failed');
        }
        $page = $this->page($event->getRequest(), $isTried);
        $event->setController(static fn (): Response => $page);
    }

    private function mayTry(Account $account): bool
    {
        return $this->tries->create('again-'.$account->id->toRfc4122())->consume()->isAccepted();
    }

    private function page(Request $request, bool $isWrong): Response
    {
        $fields = array_filter($request->request->all(), \is_string(...));
        unset($fields[self::FIELD]);

        return new Response(
            $this->twig->render('site/people/again.html.twig', [
                'to' => $request->getRequestUri(),
                'fields' => $fields,
                'is_wrong' => $isWrong,
            ]),
            $isWrong ? Response::HTTP_UNPROCESSABLE_ENTITY : Response::HTTP_OK,
            ['Cache-Control' => 'no-store, private'],
        );
    }
}
