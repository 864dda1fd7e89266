<?php

declare(strict_types=1);

namespace Verjuicer\App\Reporting\Exchange;

/** Asks the worker to take in a file that was looked at. */
final readonly class ImportFile
{
    public function __construct(public string $importId)
    {
    }
}
