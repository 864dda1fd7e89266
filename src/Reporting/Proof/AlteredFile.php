<?php

declare(strict_types=1);

namespace Verjuicer\App\Reporting\Proof;

use Symfony\Component\HttpKernel\Exception\HttpException;

/** A file that is not the one whose SHA-256 was recorded: it is not handed out. */
final class AlteredFile extends HttpException
{
    public static function named(string $what): self
    {
        return new self(409, "This $what was altered since its SHA-256 was recorded.");
    }
}
