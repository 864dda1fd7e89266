<?php

declare(strict_types=1);

namespace Verjuicer\Core\Measure;

use Verjuicer\Core\CoreProblem;

final class UnknownTimeZone extends \DomainException implements CoreProblem
{
    /** @param list<string> $nearest names that may have been meant */
    private function __construct(string $message, public readonly array $nearest)
    {
        parent::__construct($message);
    }

    /** @param list<string> $nearest names that may have been meant */
    public static function named(string $given, array $nearest = []): self
    {
        return new self(
            \sprintf(
                '"%s" is not a time zone: write its IANA name, such as %s.',
                mb_strcut($given, 0, 40),
                $nearest === [] ? 'America/Denver or Europe/London' : implode(', ', $nearest),
            ),
            $nearest,
        );
    }
}
