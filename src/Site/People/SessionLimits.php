<?php

declare(strict_types=1);

namespace Verjuicer\App\Site\People;

use Symfony\Bundle\SecurityBundle\Security;
use Symfony\Component\EventDispatcher\Attribute\AsEventListener;
use Symfony\Component\HttpKernel\Event\RequestEvent;
use Symfony\Component\Security\Http\Event\LoginSuccessEvent;
use Verjuicer\App\Platform\Now;

/**
 * Ends sessions after a time without activity, and after a total time, by role. Requests a page makes by itself are no
 * activity; the board on the wall stays.
 */
final readonly class SessionLimits
{
    private const BEGUN_AT = 'begun_at';
    private const ACTED_AT = 'acted_at';
    private const BY_ITSELF = ['board_live', 'batch_live', 'log_echo'];
    private const STAYS = ['wall', 'wall_live'];
    /** On a shared tablet; its own script asks sooner who stands there. */
    private const PIN_IDLE_MINUTES = 30;
    /** Precision of the time of the last activity: not every request writes. */
    private const EVERY = 60;

    public function __construct(private Security $security, private SessionEnded $ended, private Now $now)
    {
    }

    #[AsEventListener]
    public function begin(LoginSuccessEvent $event): void
    {
        $now = $this->now->instant()->epoch;
        $event->getAuthenticatedToken()->setAttribute(self::BEGUN_AT, $now);
        $event->getAuthenticatedToken()->setAttribute(self::ACTED_AT, $now);
    }

    /** After the firewall has said who it is. */
    #[AsEventListener(priority: 6)]
    public function check(RequestEvent $event): void
    {
        $route = $event->getRequest()->attributes->getString('_route');
        if (!$event->isMainRequest() || \in_array($route, self::STAYS, true) || str_starts_with($route, '_')) {
            return;
        }
        $account = $this->security->getUser();
        $token = $this->security->getToken();
        if (!$account instanceof Account || $token === null || !$token->hasAttribute(self::BEGUN_AT)) {
            return;
        }
        $now = $this->now->instant()->epoch;
        $begun = $token->getAttribute(self::BEGUN_AT);
        $acted = $token->getAttribute(self::ACTED_AT);
        $idle = $token->hasAttribute(RecentPasswordListener::BY_PIN)
            ? self::PIN_IDLE_MINUTES
            : $account->role->idleMinutes();
        $isOver =
            !\is_int($begun)
            || !\is_int($acted)
            || $now - $begun > 3600 * $account->role->longestHours()
            || $now - $acted > 60 * $idle;
        if ($isOver) {
            $this->security->logout(false);
            $event->setResponse($this->ended->start($event->getRequest()));
        } elseif ($now - $acted > self::EVERY && !\in_array($route, self::BY_ITSELF, true)) {
            $token->setAttribute(self::ACTED_AT, $now);
        }
    }
}
