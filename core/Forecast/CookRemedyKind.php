<?php

declare(strict_types=1);

namespace Verjuicer\Core\Forecast;

/** Remedies for a cook that runs late. */
enum CookRemedyKind: string
{
    case Wrap = 'wrap';
    case Hotter = 'hotter';
    case HotterWrap = 'hotter_wrap';

    public function turnsUp(): bool
    {
        return $this !== self::Wrap;
    }

    public function wraps(): bool
    {
        return $this !== self::Hotter;
    }
}
