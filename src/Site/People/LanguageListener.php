<?php

declare(strict_types=1);

namespace Verjuicer\App\Site\People;

use Symfony\Bundle\SecurityBundle\Security;
use Symfony\Component\EventDispatcher\Attribute\AsEventListener;
use Symfony\Component\HttpFoundation\Request;
use Symfony\Component\HttpKernel\Event\RequestEvent;
use Symfony\Component\Translation\LocaleSwitcher;
use Verjuicer\App\Platform\Wording\Language;

/** The language of a page: what the person chose, then this screen, then the browser, then the site. */
#[AsEventListener(priority: 4)] // after the firewall, which knows who it is
final readonly class LanguageListener
{
    public function __construct(private Security $security, private LocaleSwitcher $locale)
    {
    }

    public function __invoke(RequestEvent $event): void
    {
        if (!$event->isMainRequest()) {
            return;
        }
        $request = $event->getRequest();
        // Who sends no session is nobody: to ask would begin one.
        $account = $request->hasPreviousSession() ? $this->security->getUser() : null;
        $language = $account instanceof Account
            ? $account->person->language ?? self::ofScreen($request) ?? $account->site->language
            : self::ofScreen($request) ?? Language::English;
        $request->setLocale($language->value);
        $this->locale->setLocale($language->value);
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
