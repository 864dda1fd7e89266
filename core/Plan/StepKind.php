<?php

declare(strict_types=1);

namespace Verjuicer\Core\Plan;

/** Steps of a dish that need hands, in order. */
enum StepKind: string
{
    case Thaw = 'thaw';
    case Inject = 'inject';
    case Season = 'season';
    case Temper = 'temper';
    case Fire = 'fire';
    case Load = 'load';
    case Wrap = 'wrap';
    case Sauce = 'sauce';
    case Pull = 'pull';
    case Hold = 'hold';
    case Cool = 'cool';
    case Reheat = 'reheat';
    case Slice = 'slice';

    /** Of which list it is: prep, fire or pull. */
    public function list(): string
    {
        return match ($this) {
            self::Thaw, self::Inject, self::Season, self::Temper => 'prep',
            self::Fire, self::Load, self::Wrap, self::Sauce => 'fire',
            self::Pull, self::Hold, self::Cool, self::Reheat, self::Slice => 'pull',
        };
    }
}
