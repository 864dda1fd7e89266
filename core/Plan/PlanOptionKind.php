<?php

declare(strict_types=1);

namespace Verjuicer\Core\Plan;

/** Possible changes to a plan, the cheapest first. */
enum PlanOptionKind: string
{
    case Hold = 'hold';
    case Cabinet = 'cabinet';
    case Wrap = 'wrap';
    case Hotter = 'hotter';
    case HotterWrap = 'hotter_wrap';
    case OtherPit = 'other_pit';
    case SameSet = 'same_set';
    case Shallower = 'shallower';
    case BlastChiller = 'blast_chiller';
    case Earlier = 'earlier';
    case AfterOther = 'after_other';
    case ServeLater = 'serve_later';
    case Chill = 'chill';

    /** Its cost relative to others with the same benefit. */
    public function price(): float
    {
        return match ($this) {
            self::Hold, self::Cabinet => 0.1,
            self::Wrap, self::OtherPit, self::Earlier => 0.2,
            self::Hotter, self::SameSet, self::Shallower, self::AfterOther => 0.3,
            self::HotterWrap, self::BlastChiller => 0.4,
            self::ServeLater, self::Chill => 0.8,
        };
    }
}
