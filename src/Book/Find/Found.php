<?php

declare(strict_types=1);

namespace Verjuicer\App\Book\Find;

/** One hit of a search, or one line of a recall. */
final readonly class Found
{
    public function __construct(public string $id, public int $tag, public string $code, public string $product, public string $verdict, public ?string $parent, public ?int $grams, public ?string $where, public ?string $stage, public ?int $endedAt)
    {
    }
}
