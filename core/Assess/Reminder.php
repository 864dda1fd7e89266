<?php

declare(strict_types=1);

namespace Verjuicer\Core\Assess;

use Verjuicer\Core\Measure\Instant;
use Verjuicer\Core\Measure\Temperature;

/** Something the crew wants to be told of. It is never judged. */
final readonly class Reminder
{
    /**
     * @param Instant|null $due null if it waits for a temperature, for the heat, or for a look
     * @param Temperature|null $temp from which it is due
     */
    public function __construct(public string $text, public ?Instant $due, public ?Temperature $temp)
    {
    }
}
