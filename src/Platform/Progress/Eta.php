<?php

declare(strict_types=1);

namespace Verjuicer\App\Platform\Progress;

use Verjuicer\Core\Measure\Instant;
use Verjuicer\Core\Measure\Span;

/** How long something will take yet. */
final readonly class Eta
{
    /** @return Span|null by the progress since the start; null before any progress */
    public static function of(Instant $asked, int $done, ?int $total, Instant $now): ?Span
    {
        $since = max(0, $now->epoch - $asked->epoch);

        return $total === null || $done === 0
            ? null
            : Span::ofSeconds(intdiv($since * max(0, $total - $done), $done));
    }
}
