<?php

declare(strict_types=1);

namespace Verjuicer\App\Reporting\Exchange;

/**
 * What an import would do, or did: how many are new, how many were there already, and why each refused line was
 * refused.
 */
final class ImportReport
{
    public int $new = 0;

    public int $known = 0;

    /** @var list<array{code: string, count: int}> batches that are here with other events: they are left as they are */
    public array $different = [];

    /** @var list<array{line: int, why: string}> */
    public array $refused = [];

    public function refuse(int $line, string $why): void
    {
        $this->refused[] = ['line' => $line, 'why' => $why];
    }

    /** Nothing is imported where anything is refused. */
    public function isGood(): bool
    {
        return $this->refused === [];
    }
}
