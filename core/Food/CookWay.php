<?php

declare(strict_types=1);

namespace Verjuicer\Core\Food;

/** Ways of cooking that are more than an oven at a set point. */
enum CookWay: string
{
    /** Over direct heat: no oven, so it closes the low rows of the roast table. */
    case Sear = 'sear';
    /** In liquid, in a covered pan. */
    case Braise = 'braise';
}
