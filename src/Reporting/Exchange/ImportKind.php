<?php

declare(strict_types=1);

namespace Verjuicer\App\Reporting\Exchange;

/** What a file holds. */
enum ImportKind: string
{
    case Records = 'records';
    case Tables = 'tables';
    case Logger = 'logger';
    case Site = 'site';
}
