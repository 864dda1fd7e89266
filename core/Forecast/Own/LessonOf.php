<?php

declare(strict_types=1);

namespace Verjuicer\Core\Forecast\Own;

use Verjuicer\Core\Forecast\Belief\Draw;

/** What a finished cook or rest teaches something of, and which unknowns are its. */
enum LessonOf: string
{
    case Product = 'product';
    case Pit = 'pit';
    case Method = 'method';

    /** Whether own cooks make it surer, too. Of rests and coolings that was not measured: they move the middle only. */
    public function narrows(): bool
    {
        return $this !== self::Method;
    }

    /** @return list<int> */
    public function unknowns(): array
    {
        return match ($this) {
            self::Product => [Draw::HALF, Draw::SHAPE, Draw::SUPPLY, Draw::DRYING, Draw::SHARPNESS],
            self::Pit => [Draw::TRANSFER, Draw::BIAS],
            self::Method => [Draw::REST_AIR, Draw::REST_TRANSFER, Draw::EXCESS, Draw::BELOW, Draw::REST_WETNESS],
        };
    }
}
