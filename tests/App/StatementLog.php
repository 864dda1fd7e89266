<?php

declare(strict_types=1);

namespace Verjuicer\Tests\App;

use Psr\Log\AbstractLogger;

/** Counts what is sent to the database. */
final class StatementLog extends AbstractLogger
{
    public int $count = 0;

    /** @var list<string> */
    private array $statements = [];

    /** @return list<string> what was sent since this was last asked, and COMMIT for the end of a transaction */
    public function since(): array
    {
        [$sent, $this->statements] = [$this->statements, []];

        return $sent;
    }

    public function log(mixed $level, string|\Stringable $message, array $context = []): void
    {
        if (str_starts_with((string) $message, 'Executing')) {
            ++$this->count;
            $this->statements[] = \is_string($context['sql'] ?? null) ? $context['sql'] : '';
        } elseif (str_starts_with((string) $message, 'Committing')) {
            $this->statements[] = 'COMMIT';
        }
    }
}
