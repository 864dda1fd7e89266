<?php

declare(strict_types=1);

namespace Verjuicer\Core\Food;

/** How the meat was made up, which decides its cooking rule. */
enum Form: string
{
    case Roast = 'roast';
    case Cut = 'cut';
    case Comminuted = 'comminuted';
    case WholeBird = 'whole_bird';
    case CommercialReadyToEat = 'rte_commercial';
    /** Slaw, beans, sauces, cooking liquids: no raw animal food. */
    case Side = 'side';
}
