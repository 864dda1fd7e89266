<?php

declare(strict_types=1);

namespace Verjuicer\App\Reporting\Exchange;

/** Kinds of import files. */
enum ImportKind: string
{
    case Records = 'records';
    case Tables = 'tables';
    case Logger = 'logger';
    case Site = 'site';
}
