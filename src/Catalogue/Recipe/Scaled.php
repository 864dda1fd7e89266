<?php

declare(strict_types=1);

namespace Verjuicer\App\Catalogue\Recipe;

/** A recipe weighed out for the meat at hand. */
final readonly class Scaled
{
    /**
     * @param list<array{name: string, grams: float, allergens: list<string>}> $lines
     * @param int|null $cents null where a price is missing
     */
    public function __construct(public array $lines, public int $grams, public ?int $cents)
    {
    }
}
