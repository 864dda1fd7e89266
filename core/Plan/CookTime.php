<?php

declare(strict_types=1);

namespace Verjuicer\Core\Plan;

/** How long one piece may take on the heat until it is done, and until it is wrapped. */
final readonly class CookTime
{
    public function __construct(public Duration $done, public ?Duration $wrapped)
    {
    }
}
