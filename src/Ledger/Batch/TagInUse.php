<?php

declare(strict_types=1);

namespace Verjuicer\App\Ledger\Batch;

use Verjuicer\App\Platform\Problem\Problem;

/** An open batch of the site has this tag already. */
final class TagInUse extends Problem
{
    public static function already(int $tag): self
    {
        return new self('new.problem.tag_in_use', ['{tag}' => (string) $tag], 'tag');
    }

    /** A correction would reopen a batch while its tag is on another open one. */
    public static function again(): self
    {
        return new self('entry.problem.tag_in_use');
    }

    public function status(): int
    {
        return 409;
    }
}
