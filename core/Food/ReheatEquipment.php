<?php

declare(strict_types=1);

namespace Verjuicer\Core\Food;

/** Equipment for reheating. */
enum ReheatEquipment: string
{
    case Oven = 'oven';
    case Stove = 'stove';
    case Pit = 'pit';
    case Microwave = 'microwave';
    case SteamTable = 'steam_table';
    case ChafingDish = 'chafing_dish';
    case Cabinet = 'cabinet';

    /** Whether it only holds hot, and is too slow to reheat. */
    public function onlyHolds(): bool
    {
        return match ($this) {
            self::SteamTable, self::ChafingDish, self::Cabinet => true,
            self::Oven, self::Stove, self::Pit, self::Microwave => false,
        };
    }
}
