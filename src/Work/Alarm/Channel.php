<?php

declare(strict_types=1);

namespace Verjuicer\App\Work\Alarm;

/** How somebody is told. The board tells everybody who stands before one. */
enum Channel: string
{
    case Mail = 'mail';
    case Text = 'text';
    case Call = 'call';
}
