<?php

declare(strict_types=1);

namespace Verjuicer\App\Platform\Page;

/** Where an address says to go back to: a path of ours, never elsewhere. */
final readonly class BackPath
{
    /** @return string|null null where it is none of ours */
    public static function of(string $given): ?string
    {
        return preg_match('#^/(?!/)[\w/.-]*$#D', $given) === 1 ? $given : null;
    }
}
