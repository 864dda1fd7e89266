<?php

declare(strict_types=1);

namespace Verjuicer\App\Platform\Page;

use Symfony\Component\EventDispatcher\Attribute\AsEventListener;
use Symfony\Component\HttpKernel\Event\ResponseEvent;

/** The headers that let a page run only scripts and styles shipped with it. */
final readonly class ContentSecurity
{
    #[AsEventListener]
    public function addTo(ResponseEvent $event): void
    {
        if (!$event->isMainRequest()) {
            return;
        }
        $headers = $event->getResponse()->headers;
        $headers->set(
            'Content-Security-Policy',
            implode('; ', [
                "default-src 'none'",
                "script-src 'self'",
                "style-src 'self'",
                "img-src 'self' data:",
                "font-src 'self'",
                "connect-src 'self'",
                "manifest-src 'self'",
                "worker-src 'self'",
                "form-action 'self'",
                "frame-ancestors 'none'",
                "base-uri 'none'",
            ]),
        );
        $headers->set('X-Content-Type-Options', 'nosniff');
        $headers->set('Referrer-Policy', 'same-origin');
        $headers->set('Cross-Origin-Opener-Policy', 'same-origin');
        $headers->set('Permissions-Policy', 'camera=(), geolocation=(), microphone=()');
    }
}
