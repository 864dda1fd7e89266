<?php

declare(strict_types=1);

namespace Verjuicer\App\Site\People;

use Symfony\Bundle\SecurityBundle\Security;
use Symfony\Component\EventDispatcher\Attribute\AsEventListener;
use Symfony\Component\HttpFoundation\Request;
use Symfony\Component\HttpKernel\Event\RequestEvent;
use Symfony\Component\Translation\LocaleSwitcher;
use Verjuicer\App\Platform\Wording\Language;

/** The language of a page: the person's choice, then this screen's, then the browser's, then the site's. */
final readonly class LanguageListener
{
    public function __construct(private Security $security, private LocaleSwitcher $locale)
    {
    }

    /** Before the router, so that a page that is not found says so in the language of the screen. */
    #[AsEventListener(priority: 64)]
    public function beforeRouting(RequestEvent $event): void
    {
        if ($event->isMainRequest()) {
            $this->speak($event->getRequest(), self::ofScreen($event->getRequest()));
        }
    }

    /** After the firewall, which knows who it is. */
    #[AsEventListener(priority: 4)]
    public function afterLogin(RequestEvent $event): void
    {
        $request = $event->getRequest();
        // Without a session there is no person: asking would begin one.
        $account = $event->isMainRequest() && $request->hasPreviousSession() ? $this->security->getUser() : null;
        if ($account instanceof Account) {
            $own = $account->person->language;
            $this->speak($request, $own ?? self::ofScreen($request) ?? $account->site->language);
        }
    }

    private function speak(Request $request, ?Language $language): void
    {
        $request->setLocale(($language ?? Language::English)->value);
        $this->locale->setLocale($request->getLocale());
    }

    private static function ofScreen(Request $request): ?Language
    {
        $chosen = Language::tryFrom($request->cookies->getString(Language::COOKIE));
        if ($chosen !== null) {
            return $chosen;
        }
        foreach ($request->getLanguages() as $accepted) {
            $language = Language::tryFrom(substr($accepted, 0, 2));
            if ($language !== null) {
                return $language;
            }
        }

        return null;
    }
}
