<?php

declare(strict_types=1);

namespace Verjuicer\App\Ledger\Chain;

use Verjuicer\App\Platform\Problem\Problem;
use Verjuicer\App\Site\Site\Site;

/** This node does not have the key that the chain of a site names: it signs nothing, rather than with another. */
final class KeyMissing extends Problem
{
    public static function of(Site $site): self
    {
        return new self('proof.key_missing', ['{site}' => $site->name]);
    }

    public function status(): int
    {
        return 503;
    }
}
