<?php

declare(strict_types=1);

namespace Verjuicer\App\Ledger\Series;

/** Places a channel can be in. */
enum ChannelTarget: string
{
    case None = 'none';
    case Pit = 'pit';
    case Place = 'place';
    case Batch = 'batch';
}
