<?php

declare(strict_types=1);

namespace Verjuicer\Core\Measure;

use Verjuicer\Core\CoreProblem;

final class MalformedInstant extends \DomainException implements CoreProblem
{
    public static function notRfc3339(string $given): self
    {
        return new self(
            \sprintf(
                '"%s" is not a time: write it as RFC 3339 to the second and with its zone, '
                .'such as 2026-05-02T17:00:00Z or 2026-05-02T11:00:00-06:00.',
                mb_strcut($given, 0, 40),
            ),
        );
    }
}
