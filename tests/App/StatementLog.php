<?php

declare(strict_types=1);

namespace Verjuicer\Tests\App;

use Psr\Log\AbstractLogger;

/** Counts what is sent to the database. */
final class StatementLog extends AbstractLogger
{
    public int $count = 0;

    public function log(mixed $level, string|\Stringable $message, array $context = []): void
    {
        if (str_starts_with((string) $message, 'Executing')) {
            ++$this->count;
        }
    }
}
