<?php

declare(strict_types=1);

namespace Verjuicer\App\Operations\Entry;

/** An entry and the tag it was written for. */
final readonly class TaggedDraft
{
    public function __construct(public int $tag, public Draft $draft)
    {
    }
}
