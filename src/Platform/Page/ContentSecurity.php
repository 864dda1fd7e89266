<?php

declare(strict_types=1);

namespace Verjuicer\App\Platform\Page;

use Symfony\Component\EventDispatcher\Attribute\AsEventListener;
use Symfony\Component\HttpKernel\Event\ResponseEvent;
use Symfony\Contracts\Service\ResetInterface;
use Twig\Attribute\AsTwigFunction;

/** The headers that let a page run only what ships with it. */
final class ContentSecurity implements ResetInterface
{
    private ?string $nonce = null;

    /** For the one inline script a page has, its import map. */
    #[AsTwigFunction('csp_nonce')]
    public function nonce(): string
    {
        return $this->nonce ??= base64_encode(random_bytes(18));
    }

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
                "script-src 'self' 'nonce-".$this->nonce()."'",
                "style-src 'self'",
                "img-src 'self' data:",
                "font-src 'self'",
                "connect-src 'self'",
                "manifest-src 'self'",
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

    public function reset(): void
    {
        $this->nonce = null;
    }
}
