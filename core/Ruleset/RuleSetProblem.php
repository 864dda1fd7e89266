<?php

declare(strict_types=1);

namespace Verjuicer\Core\Ruleset;

use Verjuicer\Core\CoreProblem;
use Verjuicer\Core\Json\DocumentProblem;

final class RuleSetProblem extends \DomainException implements CoreProblem
{
    /** @param list<string> $known */
    public static function unknown(string $id, array $known): self
    {
        return new self(
            \sprintf('There is no rule set "%s" here: name one of %s.', mb_strcut($id, 0, 40), implode(', ', $known)),
        );
    }

    public static function unreadable(string $file, string $why): self
    {
        return new self(\sprintf('The rule set %s cannot be read: %s.', basename($file), $why));
    }

    /** @param non-empty-list<DocumentProblem> $problems */
    public static function invalid(string $file, array $problems): self
    {
        $lines = array_map(
            static fn (DocumentProblem $problem): string => $problem->pointer.': '.$problem->message,
            $problems,
        );

        return new self(\sprintf("The rule set %s is not valid:\n%s", basename($file), implode("\n", $lines)));
    }
}
