<?php

declare(strict_types=1);

namespace Verjuicer\Core\Json;

/** One problem of a JSON document: its place (RFC 6901 pointer) and how to fix it. */
final readonly class DocumentProblem
{
    public function __construct(public string $pointer, public string $message)
    {
    }
}
