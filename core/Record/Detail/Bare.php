<?php

declare(strict_types=1);

namespace Verjuicer\Core\Record\Detail;

/** Nothing beyond who, when and which kind: a thaw, a spritz, a serving. */
final readonly class Bare implements Detail
{
    private function __construct()
    {
    }

    public static function of(): self
    {
        return new self();
    }

    public function members(): array
    {
        return [];
    }
}
