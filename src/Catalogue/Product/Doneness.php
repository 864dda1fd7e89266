<?php

declare(strict_types=1);

namespace Verjuicer\App\Catalogue\Product;

use Verjuicer\Core\Measure\Temperature;

/** How a kitchen likes it: a band of temperature and how it feels. Nothing of it is a limit. */
final readonly class Doneness
{
    public function __construct(public Temperature $from, public Temperature $to, public string $feel)
    {
    }
}
