<?php

declare(strict_types=1);

namespace Verjuicer\Core\Measure;

use Verjuicer\Core\CoreProblem;

final class UnknownZone extends \DomainException implements CoreProblem
{
    public static function named(string $given): self
    {
        return new self(
            \sprintf(
                '"%s" is not a time zone: write its IANA name, such as America/Denver or Europe/London.',
                mb_strcut($given, 0, 40),
            ),
        );
    }
}
