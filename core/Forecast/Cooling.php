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
        'blast' => self::BlastChiller, 'wand' => self::IceWand, 'ice' => self::IceBath, 'shallow' => self::ShallowPans, 'pan' => self::ShallowPans, 'walk-in' => self::WalkIn,
        'walk in' => self::WalkIn, 'fridge' => self::WalkIn, 'refrigerator' => self::WalkIn, 'cabinet' => self::Cabinet, 'steam' => self::Cabinet, 'oven' => self::DeadOven,
        'box' => self::Box, 'cooler' => self::Box, 'towel' => self::Towels, 'rack' => self::Rack, 'foil' => self::Rack, 'counter' => self::Counter, 'board' => self::Counter,
    ];

    /** What somebody wrote as the method of a rest or a cooling; null where it says none of these. */
    public static function fromWords(string $words): ?self
    {
        $words = mb_strtolower($words);
        foreach (self::WORDS as $word => $method) {
            if (str_contains($words, $word)) {
                return $method;
            }
        }

        return null;
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
