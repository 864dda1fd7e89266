<?php

declare(strict_types=1);

namespace Verjuicer\Core\Forecast;

/** A way to rest, hold or cool, by what it does to the meat: how warm it is around it and how much heat it takes. */
enum Cooling: string
{
    case Rack = 'rack';
    case Towels = 'towels';
    case Box = 'box';
    case DeadOven = 'dead_oven';
    case Cabinet = 'cabinet';
    case Counter = 'counter';
    case WalkIn = 'walk_in';
    case ShallowPans = 'shallow_pans';
    case BlastChiller = 'blast_chiller';
    case IceBath = 'ice_bath';
    case IceWand = 'ice_wand';

    private const WORDS = [
        'rack' => self::Rack, 'rack under foil' => self::Rack, 'foil' => self::Rack, 'towels' => self::Towels, 'towel' => self::Towels,
        'box' => self::Box, 'insulated box' => self::Box, 'cooler' => self::Box, 'switched-off oven' => self::DeadOven, 'dead oven' => self::DeadOven,
        'cabinet' => self::Cabinet, 'holding cabinet' => self::Cabinet, 'steam table' => self::Cabinet,
        'counter' => self::Counter, 'open counter' => self::Counter, 'board' => self::Counter,
        'walk-in' => self::WalkIn, 'walk in' => self::WalkIn, 'walk-in rack' => self::WalkIn, 'fridge' => self::WalkIn, 'refrigerator' => self::WalkIn,
        'pan' => self::ShallowPans, 'pans' => self::ShallowPans, 'shallow pan' => self::ShallowPans, 'shallow pans' => self::ShallowPans,
        'blast chiller' => self::BlastChiller, 'blast' => self::BlastChiller, 'ice' => self::IceBath, 'ice bath' => self::IceBath, 'ice water' => self::IceBath,
        'wand' => self::IceWand, 'ice wand' => self::IceWand,
    ];

    /** What somebody wrote as the method of a rest or a cooling, word for word; null where it is none of these: "sliced" is no ice. */
    public static function fromWords(string $words): ?self
    {
        return self::WORDS[mb_strtolower(trim($words))] ?? null;
    }

    /** @return array{float, float} °C around the meat, the coldest and the warmest it usually is */
    public function surroundings(): array
    {
        return match ($this) {
            self::Rack, self::Counter => [16.0, 32.0],
            self::Towels => [18.0, 40.0],
            self::Box => [22.0, 52.0],
            self::DeadOven => [22.0, 60.0],
            self::Cabinet => [55.0, 70.0],
            self::WalkIn, self::ShallowPans => [1.0, 7.0],
            self::BlastChiller => [-18.0, 0.0],
            self::IceBath, self::IceWand => [0.0, 3.0],
        };
    }

    /** @return array{float, float} W/(m² K), the least and the most heat it usually takes */
    public function transfer(): array
    {
        return match ($this) {
            self::Rack => [5.0, 14.0],
            self::Towels => [1.5, 5.0],
            self::Box => [0.8, 3.0],
            self::DeadOven => [2.0, 9.0],
            self::Cabinet => [3.0, 10.0],
            self::Counter => [7.0, 18.0],
            self::WalkIn => [6.0, 20.0],
            self::ShallowPans => [8.0, 25.0],
            self::BlastChiller => [18.0, 70.0],
            self::IceBath => [60.0, 250.0],
            self::IceWand => [60.0, 300.0],
        };
    }
}
