<?php

declare(strict_types=1);

namespace Verjuicer\Core\Food;

/** A kind of place or method for resting, holding or cooling. Free text may be added; nothing is guessed from it. */
enum Holding: string
{
    case Rack = 'rack';
    case Towels = 'towels';
    case Box = 'box';
    case DeadOven = 'dead_oven';
    case Counter = 'counter';
    case Cabinet = 'cabinet';
    case SteamTable = 'steam_table';
    case ChafingDish = 'chafing_dish';
    case Carrier = 'carrier';
    case WalkIn = 'walk_in';
    case ShallowPans = 'shallow_pans';
    case BlastChiller = 'blast_chiller';
    case IceBath = 'ice_bath';
    case IceWand = 'ice_wand';
    case Freezer = 'freezer';

    /** Words by which records name them that were written before there was a list, whole and in lower case. */
    private const WORDS = [
        'rack under foil' => self::Rack,
        'foil' => self::Rack,
        'towel' => self::Towels,
        'insulated box' => self::Box,
        'cooler' => self::Box,
        'switched-off oven' => self::DeadOven,
        'dead oven' => self::DeadOven,
        'holding cabinet' => self::Cabinet,
        'steam table' => self::SteamTable,
        'chafing dish' => self::ChafingDish,
        'open counter' => self::Counter,
        'board' => self::Counter,
        'walk-in' => self::WalkIn,
        'walk in' => self::WalkIn,
        'walk-in rack' => self::WalkIn,
        'fridge' => self::WalkIn,
        'refrigerator' => self::WalkIn,
        'pan' => self::ShallowPans,
        'pans' => self::ShallowPans,
        'shallow pan' => self::ShallowPans,
        'shallow pans' => self::ShallowPans,
        'blast chiller' => self::BlastChiller,
        'blast' => self::BlastChiller,
        'ice' => self::IceBath,
        'ice bath' => self::IceBath,
        'ice water' => self::IceBath,
        'wand' => self::IceWand,
        'ice wand' => self::IceWand,
        'chest freezer' => self::Freezer,
    ];

    /** The place that a text names exactly: "sliced" is no ice, "carrier 2" no cabinet. */
    public static function named(string $words): ?self
    {
        $words = mb_strtolower(trim($words));

        return self::tryFrom($words) ?? (self::WORDS[$words] ?? null);
    }

    /** Whether food is kept hot there, heated or not. */
    public function isWarm(): bool
    {
        return match ($this) {
            self::Cabinet, self::SteamTable, self::ChafingDish, self::Carrier => true,
            default => false,
        };
    }

    /** Whether food is made or kept cold there. */
    public function isCold(): bool
    {
        return match ($this) {
            self::WalkIn, self::ShallowPans, self::BlastChiller, self::IceBath, self::IceWand, self::Freezer => true,
            default => false,
        };
    }
}
