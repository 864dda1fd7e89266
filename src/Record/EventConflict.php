<?php

declare(strict_types=1);

namespace Verjuicer\App\Record;

/** An id that a client used for two different entries; a retry of the same entry is no conflict. */
final class EventConflict extends \DomainException
{
    public static function idTaken(string $id): self
    {
        return new self(\sprintf('The id %s already belongs to another entry. Reload the page and log it again.', $id));
    }

    public static function replacesNothing(): self
    {
        return new self('The entry to be corrected is not in this batch.');
    }
}
