<?php

declare(strict_types=1);

namespace Verjuicer\App\Book\Paper;

/** A heading, a list of points, or a paragraph. */
final readonly class PaperBlock
{
    /**
     * @param string $kind 'heading', 'points' or 'words'
     * @param list<string> $lines
     */
    public function __construct(public string $kind, public array $lines)
    {
    }
}
