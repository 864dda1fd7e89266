<?php

declare(strict_types=1);

namespace Verjuicer\Core\Json;

/** One thing wrong with a JSON document: where (RFC 6901 pointer) and what to do about it. */
final readonly class DocumentProblem
{
    public function __construct(public string $pointer, public string $message)
    {
    }
}
