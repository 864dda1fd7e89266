<?php

declare(strict_types=1);

namespace Verjuicer\App\Ledger\Opening;

final class TagInUse extends \DomainException
{
    private function __construct(public readonly int $tag)
    {
        parent::__construct(\sprintf('Tag %d is on an open batch: take another tag.', $tag));
    }

    public static function already(int $tag): self
    {
        return new self($tag);
    }
}
