<?php

declare(strict_types=1);

namespace Verjuicer\App\Platform\Wording;

use Symfony\Component\HttpFoundation\RequestStack;

/** Whether the reader wants °C and °F side by side: a cookie of the screen; never on paper. */
final readonly class DualUnitDisplay
{
    public const COOKIE = 'units';
    public const BOTH = 'both';

    public function __construct(private RequestStack $requests)
    {
    }

    public function areBoth(): bool
    {
        return $this->requests->getMainRequest()?->cookies->get(self::COOKIE) === self::BOTH;
    }
}
