<?php

declare(strict_types=1);

namespace Verjuicer\App\Ledger\Log;

/** An entry that does not go with what is already kept; the key is a translation key that says what to do. */
final class EventConflict extends \DomainException
{
    private function __construct(public readonly string $key)
    {
        parent::__construct($key);
    }

    /** A client used one id for two different entries; a retry of the same entry is no conflict. */
    public static function idTaken(): self
    {
        return new self('entry.problem.id_taken');
    }

    public static function inTheFuture(): self
    {
        return new self('entry.problem.future');
    }

    public static function replacesNothing(): self
    {
        return new self('entry.problem.replaces_nothing');
    }

    /** A correction would open a batch again whose tag is meanwhile on another open batch. */
    public static function tagInUse(): self
    {
        return new self('entry.problem.tag_in_use');
    }
}
