<?php

declare(strict_types=1);

namespace Verjuicer\App\Reporting\Exchange;

/** Somebody stopped an import: what is in stays, and it can be gone on with. */
final class ImportCancelled extends \RuntimeException
{
}
