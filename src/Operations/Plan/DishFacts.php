<?php

declare(strict_types=1);

namespace Verjuicer\App\Operations\Plan;

use Verjuicer\Core\Food\Holding;
use Verjuicer\Core\Measure\Instant;
use Verjuicer\Core\Measure\MalformedTemperature;
use Verjuicer\Core\Measure\Temperature;
use Verjuicer\Core\Measure\TemperatureUnit;
use Verjuicer\Core\Plan\Dish;

/**
 * How a dish is planned, as it was typed: weights in grams, lengths in minutes.
 *
 * @phpstan-type Degrees array{tenths: int, unit: string}
 * @phpstan-type Kept array{portions: int, plateGrams: int, pieceGrams: int, pieces: int|null, set: Degrees,
 *     target: Degrees, wrap: string|null, wrapAt: Degrees|null, wrapAfter: int|null,
 *     total: int|null, sauced: int, rest: string, resting: int, hold: string|null, slicing: int,
 *     chillMethod: string|null, chillDepthMm: int, isChillCovered: bool, reheating: int,
 *     isThawed: bool, injected: int, seasoned: int, tempered: int, fire: int, pit: string|null,
 *     load: int|null}
 */
final readonly class DishFacts
{
    /**
     * @param int $portions plates
     * @param int|null $pieces null for as many as it needs
     * @param Temperature|null $wrapAt of the meat
     * @param int|null $wrapAfter minutes on the heat
     * @param int|null $total minutes on the heat of a fixed schedule; null by feel
     * @param Holding|null $chillMethod null where it is served from the heat
     * @param Instant|null $load null for as late as does
     */
    public function __construct(
        public int $portions,
        public int $plateGrams,
        public int $pieceGrams,
        public ?int $pieces,
        public Temperature $set,
        public Temperature $target,
        public ?string $wrap,
        public ?Temperature $wrapAt,
        public ?int $wrapAfter,
        public ?int $total,
        public int $sauced,
        public Holding $rest,
        public int $resting,
        public ?Holding $hold,
        public int $slicing,
        public ?Holding $chillMethod,
        public int $chillDepthMm,
        public bool $isChillCovered,
        public int $reheating,
        public bool $isThawed,
        public int $injected,
        public int $seasoned,
        public int $tempered,
        public int $fire,
        public ?string $pit,
        public ?Instant $load,
    ) {
    }

    /** @param Kept $kept as kept() made it */
    public static function of(array $kept): self
    {
        return new self(
            $kept['portions'],
            $kept['plateGrams'],
            $kept['pieceGrams'],
            $kept['pieces'],
            self::temperature($kept['set']),
            self::temperature($kept['target']),
            $kept['wrap'],
            $kept['wrapAt'] === null ? null : self::temperature($kept['wrapAt']),
            $kept['wrapAfter'],
            $kept['total'],
            $kept['sauced'],
            Holding::from($kept['rest']),
            $kept['resting'],
            $kept['hold'] === null ? null : Holding::from($kept['hold']),
            $kept['slicing'],
            $kept['chillMethod'] === null ? null : Holding::from($kept['chillMethod']),
            $kept['chillDepthMm'],
            $kept['isChillCovered'],
            $kept['reheating'],
            $kept['isThawed'],
            $kept['injected'],
            $kept['seasoned'],
            $kept['tempered'],
            $kept['fire'],
            $kept['pit'],
            $kept['load'] === null ? null : Instant::ofEpoch($kept['load']),
        );
    }

    /** @param array<mixed> $said what may be kept facts, out of a file; null where it is none */
    public static function tryOf(array $said): ?self
    {
        $names = array_column((new \ReflectionClass(self::class))->getProperties(), 'name');
        if (array_diff($names, array_keys($said)) !== []) {
            return null;
        }
        try {
            return self::of($said); // @phpstan-ignore argument.type (of another type it is none)
        } catch (\TypeError|\ValueError|MalformedTemperature) {
            return null;
        }
    }

    /** @return Kept */
    public function kept(): array
    {
        return [
            'portions' => $this->portions,
            'plateGrams' => $this->plateGrams,
            'pieceGrams' => $this->pieceGrams,
            'pieces' => $this->pieces,
            'set' => self::said($this->set),
            'target' => self::said($this->target),
            'wrap' => $this->wrap,
            'wrapAt' => $this->wrapAt === null ? null : self::said($this->wrapAt),
            'wrapAfter' => $this->wrapAfter,
            'total' => $this->total,
            'sauced' => $this->sauced,
            'rest' => $this->rest->value,
            'resting' => $this->resting,
            'hold' => $this->hold?->value,
            'slicing' => $this->slicing,
            'chillMethod' => $this->chillMethod?->value,
            'chillDepthMm' => $this->chillDepthMm,
            'isChillCovered' => $this->isChillCovered,
            'reheating' => $this->reheating,
            'isThawed' => $this->isThawed,
            'injected' => $this->injected,
            'seasoned' => $this->seasoned,
            'tempered' => $this->tempered,
            'fire' => $this->fire,
            'pit' => $this->pit,
            'load' => $this->load?->epoch,
        ];
    }

    public function loadedAt(?Instant $load): self
    {
        return self::of(['load' => $load?->epoch] + $this->kept());
    }

    /** A way out of a plan, taken: what it changed, and nothing else. */
    public function mended(Dish $dish, TemperatureUnit $unit): self
    {
        $heat = $dish->heat;
        $chill = $dish->chill;

        return self::of(
            [
                'set' => self::said(self::inUnit($heat->set, $unit)),
                'wrap' => $heat->wrap,
                'wrapAt' => $heat->wrapAt === null ? null : self::said(self::inUnit($heat->wrapAt, $unit)),
                'wrapAfter' => $heat->wrapAfter === null ? null : intdiv($heat->wrapAfter, 60),
                'rest' => $dish->rest->place->value,
                'hold' => $dish->rest->hold?->value,
                'chillMethod' => $chill?->method->value,
                'chillDepthMm' => $chill === null ? $this->chillDepthMm : (int) round(1000 * $chill->depth),
                'isChillCovered' => $chill === null ? $this->isChillCovered : $chill->isCovered,
                'reheating' => $chill === null ? $this->reheating : intdiv($chill->reheating, 60),
                'pit' => $dish->pit,
                'load' => $dish->load?->epoch,
            ] + $this->kept(),
        );
    }

    /** @param float $celsius to a whole degree */
    private static function inUnit(float $celsius, TemperatureUnit $unit): Temperature
    {
        $degrees = $unit === TemperatureUnit::Celsius ? $celsius : 32 + 1.8 * $celsius;

        return Temperature::ofTenths(10 * (int) round($degrees), $unit);
    }

    /** @param Degrees $kept */
    private static function temperature(array $kept): Temperature
    {
        return Temperature::ofTenths($kept['tenths'], TemperatureUnit::from($kept['unit']));
    }

    /** @return Degrees */
    private static function said(Temperature $temperature): array
    {
        return ['tenths' => $temperature->tenths, 'unit' => $temperature->unit->value];
    }
}
