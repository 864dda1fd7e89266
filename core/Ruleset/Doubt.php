<?php

declare(strict_types=1);

namespace Verjuicer\Core\Ruleset;

/** Why a reading may be a slip. */
enum Doubt: string
{
    case TooCold = 'too_cold';
    case TooHot = 'too_hot';
    case Jump = 'jump';
    case OtherUnit = 'other_unit';
}
