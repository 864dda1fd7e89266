<?php

declare(strict_types=1);

namespace Verjuicer\App\Reporting\Exchange;

/** The result or preview of an import: new events, known ones, and the reason for each refused line. */
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
