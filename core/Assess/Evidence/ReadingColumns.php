<?php

declare(strict_types=1);

namespace Verjuicer\Core\Assess\Evidence;

use Verjuicer\Core\Measure\Temperature;

/** Readings as they are gathered, a list for each figure that every check asks for: place, moment, temperature. */
final class ReadingColumns
{
    /** @var list<int> places among all counted events */
    public array $orders = [];

    /** @var list<int> seconds since 1970, UTC */
    public array $ats = [];

    /** @var list<Temperature> */
    public array $temps = [];
}
