<?php

declare(strict_types=1);

namespace Verjuicer\App\Projection;

/** Asks the worker to bring the read tables of a site up to date. */
final readonly class CatchUp
{
    public function __construct(public string $siteId)
    {
    }
}
