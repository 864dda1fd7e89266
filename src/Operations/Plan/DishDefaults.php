<?php

declare(strict_types=1);

namespace Verjuicer\App\Operations\Plan;

use Verjuicer\App\Catalogue\Holding\HoldUnits;
use Verjuicer\App\Catalogue\Pit\Pits;
use Verjuicer\App\Catalogue\Product\Product;
use Verjuicer\Core\Food\Form;
use Verjuicer\Core\Food\Holding;
use Verjuicer\Core\Measure\Temperature;
use Verjuicer\Core\Measure\TemperatureUnit;
use Verjuicer\Core\Plan\HeatPlan;

/** How a dish is planned before anybody says otherwise: from what the list of products says of it. */
final readonly class DishDefaults
{
    public const PLATE_GRAMS = 150;
    private const PIECE_GRAMS = 2000;
    private const SLICING = 15; // minutes
    private const OVERNIGHT = 12 * 60;
    private const BEFORE_FIRE = 60;
    private const PREHEATS = 60;
    private const REHEATS = 100;
    private const SHALLOW_MM = 50;
    /** "3 open, 2 wrapped, 1 sauced", in minutes. */
    private const CLOCK = ['total' => 360, 'wrapAfter' => 180, 'sauced' => 60];
    /** °F of a pit. */
    private const LOW = 250;
    private const HOT = 300;
    private const HELD_FROM = 150; // °F
    private const TENDER = 185; // °F from which on meat is cooked until it pulls

    /** The words of a wrap and a rest that plans know, in a kitchen that writes them in Spanish. */
    private const SPANISH = [
        'papel' => 'paper',
        'barca de aluminio' => 'boat',
        'aluminio' => 'foil',
        'charola tapada' => 'covered pan',
        'nunca' => 'never',
        'hielera' => 'box',
        'toalla' => 'towel',
        'envuelt' => 'wrapped',
        'ningun' => 'none',
        ' a ' => ' to ',
    ];

    public function __construct(private Pits $pits, private HoldUnits $units)
    {
    }

    /** @param int|null $gramsOfOne as it is on hand */
    public function of(
        Product $product,
        CookStyle $school,
        int $portions,
        ?int $plateGrams,
        ?int $gramsOfOne,
    ): DishFacts {
        $unit = $product->site->unit;
        $target = $product->doneness()->from ?? self::degrees(165, $unit);
        $isTender = $target->ninetieths >= self::degrees(self::TENDER, TemperatureUnit::Fahrenheit)->ninetieths;
        [$wrap, $wrapAt] = $isTender || $product->wrap !== '' ? self::wrap($product->wrap, $unit) : [null, null];
        $clock = $school === CookStyle::Clock ? self::CLOCK : ['total' => null, 'wrapAfter' => null, 'sauced' => 0];
        [$rest, $resting] = self::rest($product->rest);

        return new DishFacts(
            $portions,
            $plateGrams ?? self::PLATE_GRAMS,
            $gramsOfOne ?? $product->usualGrams ?? self::PIECE_GRAMS,
            null,
            self::degrees($school === CookStyle::HotFast ? self::HOT : self::LOW, $unit),
            $target,
            $school === CookStyle::Clock ? 'foil' : $wrap,
            $school === CookStyle::Clock ? null : $wrapAt,
            $clock['wrapAfter'],
            $clock['total'],
            $clock['sauced'],
            $rest,
            $resting,
            self::isHot($target) ? $this->cabinet($product) : null,
            self::SLICING,
            null,
            self::SHALLOW_MM,
            false,
            self::REHEATS,
            false,
            0,
            $product->form === Form::Roast && $isTender ? self::OVERNIGHT : self::BEFORE_FIRE,
            0,
            self::PREHEATS,
            $this->biggestPit($product),
            null,
        );
    }

    private function biggestPit(Product $product): ?string
    {
        $biggest = null;
        foreach ($this->pits->of($product->site) as $pit) {
            if ($biggest === null || ($pit->capacityKg ?? 0) > ($biggest->capacityKg ?? 0)) {
                $biggest = $pit;
            }
        }

        return $biggest?->name;
    }

    /** What waits for its meal is held hot where the kitchen has something for it. */
    private function cabinet(Product $product): ?Holding
    {
        foreach ($this->units->of($product->site) as $unit) {
            if ($unit->kind === Holding::Cabinet) {
                return $unit->kind;
            }
        }

        return null;
    }

    /** Whether it comes off warm enough to be held hot: a rare roast does not. */
    private static function isHot(Temperature $target): bool
    {
        return $target->ninetieths >= self::degrees(self::HELD_FROM, TemperatureUnit::Fahrenheit)->ninetieths;
    }

    private static function degrees(int $fahrenheit, TemperatureUnit $unit): Temperature
    {
        return $unit === TemperatureUnit::Fahrenheit
            ? Temperature::ofTenths(10 * $fahrenheit, $unit)
            : Temperature::ofTenths(10 * (int) round(($fahrenheit - 32) / 1.8), $unit);
    }

    /** @return array{string|null, Temperature|null} "paper at 165 °F": with what, and at what of the meat */
    private static function wrap(string $words, TemperatureUnit $unit): array
    {
        $words = strtr(mb_strtolower($words), self::SPANISH);
        foreach (HeatPlan::WRAPS as $with) {
            if (str_contains($words, $with) && !str_contains($words, 'never')) {
                return [
                    $with,
                    preg_match('/(\d{2,3})\s*°?\s*([fc])\b/u', $words, $part) === 1
                        ? Temperature::ofTenths(10 * (int) $part[1], TemperatureUnit::from(strtoupper($part[2])))
                        : self::degrees(165, $unit),
                ];
            }
        }

        return [null, null];
    }

    /** @return array{Holding, int} "1 to 4 h wrapped, insulated box": where, and minutes */
    private static function rest(string $words): array
    {
        $words = strtr(mb_strtolower($words), self::SPANISH);
        $place = match (true) {
            str_contains($words, 'box') => Holding::Box,
            str_contains($words, 'towel') || str_contains($words, 'wrapped') => Holding::Towels,
            default => Holding::Rack,
        };
        $minutes = match (true) {
            str_starts_with($words, 'none') => 0,
            preg_match('/(\d+)(?:\s*to\s*\d+)?\s*h/', $words, $part) === 1 => 60 * (int) $part[1],
            preg_match('/(\d+)(?:\s*to\s*\d+)?\s*min/', $words, $part) === 1 => (int) $part[1],
            default => 15,
        };

        return [$place, $minutes];
    }
}
