<?php

declare(strict_types=1);

namespace Verjuicer\App\Book\Exchange;

/** Somebody stopped an import: what is in stays, and it can be gone on with. */
final class Stopped extends \RuntimeException
{
}
