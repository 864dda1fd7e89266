<?php

declare(strict_types=1);

namespace Verjuicer\App\Reporting\Exchange;

/** The import was stopped: imported entries stay, and it can be resumed. */
final class ImportCancelled extends \RuntimeException
{
}
