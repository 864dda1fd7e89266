<?php

declare(strict_types=1);

namespace Verjuicer\Core\Record;

use Verjuicer\Core\CoreProblem;
use Verjuicer\Core\Json\DocumentProblem;

final class InvalidRecord extends \DomainException implements CoreProblem
{
    /** @param non-empty-list<DocumentProblem> $problems */
    private function __construct(public readonly array $problems)
    {
        parent::__construct(\sprintf('The record is not valid: %s %s', $problems[0]->pointer, $problems[0]->message));
    }

    /** @param non-empty-list<DocumentProblem> $problems */
    public static function because(array $problems): self
    {
        return new self($problems);
    }

    public static function notJson(string $why): self
    {
        return new self(
            [new DocumentProblem('', \sprintf('This is not JSON (%s): one record is one JSON object.', $why))],
        );
    }
}
