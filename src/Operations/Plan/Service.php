<?php

declare(strict_types=1);

namespace Verjuicer\App\Operations\Plan;

use Verjuicer\Core\Measure\Instant;

/** A meal of a plan: when it is served, and for how many. */
final readonly class Service
{
    public function __construct(public string $id, public string $name, public Instant $at, public int $guests)
    {
    }
}
