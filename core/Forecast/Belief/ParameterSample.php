<?php

declare(strict_types=1);

namespace Verjuicer\Core\Forecast\Belief;

use Verjuicer\Core\Food\Holding;
use Verjuicer\Core\Thermal\Block;
use Verjuicer\Core\Thermal\Body;
use Verjuicer\Core\Thermal\Surface;

/**
 * One possible set of parameters: the unknowns of a piece and its surroundings, from independent standard normal
 * numbers.
 */
final readonly class ParameterSample
{
    public const HALF = 0;
    public const SHAPE = 1;
    public const TRANSFER = 2;
    public const SUPPLY = 3;
    public const DRYING = 4;
    public const BIAS = 5;
    public const START = 6;
    public const LEAK = 7;
    public const REST_AIR = 8;
    public const REST_TRANSFER = 9;
    public const BELOW = 10;
    public const EXCESS = 11;
    public const SHARPNESS = 12;
    /** By how much more freely it gives off water from now on than it did. */
    public const COMING = 13;
    public const OFF_CENTRE = 14;
    public const REST_WETNESS = 15;
    public const UNKNOWNS = 16;
    public const ON_THE_HEAT = [
        self::TRANSFER,
        self::SUPPLY,
        self::DRYING,
        self::BIAS,
        self::SHARPNESS,
    ];

    private const CONVECTION = 0.6; // the air's share of the heat from a pit's air and walls
    private const USUAL_HALF = 0.17; // of its logarithm, from weight
    private const SKIN = 0.8; // of the water that dries elsewhere
    private const GIVES = 0.27; // of its logarithm
    private const DRIES = 0.43; // of its logarithm
    private const DRIES_SKIN = 0.55; // beneath skin
    private const HUMID = 0.85; // bounds of cold air
    private const LONG = 1.5;
    private const RAW = 0.65; // of a free water surface, how freely meat gives off water that reaches its surface
    private const CONDUCTS = 0.45; // W/(m K)
    private const USUAL_PIT = 115.0; // °C, if not recorded

    public float $half;
    public float $shape;
    public float $start;
    private float $transfer;
    private float $supply;
    private float $drying;
    private float $bias;
    private float $leak;
    private float $restAir;
    private float $restAside; // °C by which air is warmer than it was read
    private float $restTransfer;
    private float $restWetness;
    private float $below;
    private float $excess;
    private float $sharpness;
    /** A standard normal number: deviation of the set temperature from its readings. */
    public float $kept;
    /** Of the way from the middle to the surface: where the probe is. */
    public float $offCentre;
    /** How much more freely it gives off water from now on than it did. */
    public float $freely;

    /** @param array<int, float> $z by unknown */
    public function __construct(array $z, Prior $prior)
    {
        foreach ($prior->likely as $unknown => [$likely, $spread]) {
            $z[$unknown] = $likely + $spread * $z[$unknown];
        }
        // The likeliest, and a standard deviation (of the logarithm, where there is an exponential), of practice:
        // W/(m² K) in a smoker, W/m² that the water takes with it that reaches the surface, kg/m² that may dry, °C of a
        // gauge and of a cold room.
        $this->transfer = 14.5 * exp(self::GIVES * $z[self::TRANSFER]);
        [$this->half, $this->shape] = $this->body($prior, $z[self::HALF], $z[self::SHAPE]);
        $this->supply = 800.0 * exp(0.5 * $z[self::SUPPLY]);
        $dries = $prior->hasSkin ? self::DRIES_SKIN : self::DRIES;
        $this->drying = ($prior->hasSkin ? self::SKIN : 1.0) * 2.9 * exp($dries * $z[self::DRYING]);
        $this->bias = 5.0 * $z[self::BIAS];
        $this->start = 4.5 + 2.5 * $z[self::START];
        $this->leak = min(1.0, 0.27 * exp(0.8 * $z[self::LEAK]));
        $this->restAir = self::part($z[self::REST_AIR]);
        $this->restAside = 0.35 * $z[self::REST_AIR];
        $this->restTransfer = self::part($z[self::REST_TRANSFER]);
        $this->restWetness = 0.22 * exp(0.8 * $z[self::REST_WETNESS]);
        $this->below = self::part($z[self::BELOW]);
        $this->excess = self::part($z[self::EXCESS]);
        $this->kept = -$z[self::EXCESS];
        $this->sharpness = 0.7 + 1.6 * self::part($z[self::SHARPNESS]);
        $this->offCentre = min(0.5, 0.13 * exp(0.7 * $z[self::OFF_CENTRE]));
        $this->freely = exp(0.3 * $z[self::COMING]);
    }

    /** @return array{float, float} m from the middle to the surface, and the power its area grows with */
    private function body(Prior $prior, float $thick, float $round): array
    {
        $half = min($prior->ball, $prior->half * exp($prior->spread * $thick));
        if (!$prior->isWeighed) {
            // A piece nearly as thick as a ball is round; a thin one is flat.
            $like = min(1.0, max(0.0, ($half / $prior->ball - 0.35) / 0.65));

            return [$half, min(2.0, max(0.0, 0.2 + 1.7 * $like + 0.3 * $round))];
        }
        $volume = (4 * \M_PI * $prior->ball ** 3) / 3;
        if ($prior->isRound) {
            $long = $volume / (2 * \M_PI * $half ** 2);

            return Block::cylinder($half, max($half, $long))->like($this->transfer, self::CONDUCTS);
        }
        // A block as heavy, and so much longer than wide.
        $long = self::LONG * exp(0.25 * $round);
        $wide = max($half, sqrt($volume / (8 * $half * $long)));

        return Block::of($half, $wide, max($wide, $long * $wide))->like($this->transfer, self::CONDUCTS);
    }

    /** One of its unknowns as a number that grows with it. */
    public function of(int $unknown): float
    {
        return match ($unknown) {
            self::HALF => $this->half,
            self::BIAS => $this->bias,
            self::REST_AIR => $this->restAir,
            self::REST_TRANSFER => $this->restTransfer,
            self::BELOW => $this->below,
            default => throw new \LogicException("Nobody asks for unknown $unknown."),
        };
    }

    /**
     * By how much one of its unknowns lies elsewhere than is usual, of a normal number.
     *
     * @return float|null °C of the pit, otherwise a part of it; null where that cannot be said in a figure
     */
    public static function aside(int $unknown, float $number): ?float
    {
        return match ($unknown) {
            self::HALF => exp(self::USUAL_HALF * $number) - 1.0,
            self::TRANSFER => exp(self::GIVES * $number) - 1.0,
            self::DRYING => exp(self::DRIES * $number) - 1.0,
            self::BIAS => 5.0 * $number,
            default => null,
        };
    }

    /** The half thickness of a layer: heat leaves upwards, and through the support as well as that conducts. */
    public function halfOf(float $depth, ?Holding $holding): float
    {
        return \in_array($holding, [Holding::IceBath, Holding::IceWand], true)
            ? $depth / (1.0 + 0.45 * $this->below)
            : $depth / (1.48 + 0.55 * $this->below);
    }

    /**
     * How it is on a leg; the air as warm as was said there.
     *
     * @return array{Surface, float, float} the surface; by how many °C its air is warmer at first; seconds in which
     *     that fades
     */
    public function surface(Leg $leg, ?float $said): array
    {
        if ($leg->holding === null) {
            $isPaper = $leg->wrap !== null && str_contains($leg->wrap, 'paper');
            $isBoat = $leg->wrap !== null && str_contains($leg->wrap, 'boat');
            // Steam escapes as far as the wrapping lets it; pressed-out juice stays beneath.
            [$takes, $wetness, $reaches] = match (true) {
                $leg->wrap === null => [1.0, self::RAW, 1.0],
                $isBoat => [0.95, 0.55 * self::RAW, 0.55],
                $isPaper => [0.92, $this->leak, 0.45],
                default => [0.86, 0.08 * $this->leak, 0.6],
            };
            $transfer = $this->transfer * $takes;

            return [
                new Surface(
                    ($said ?? self::USUAL_PIT) + $this->bias * ($said === null ? 3.0 : 1.0),
                    $transfer,
                    self::CONVECTION * $transfer,
                    3000.0,
                    min(1.0, $wetness),
                    $leg->wrap === null || $isBoat ? $this->drying : 1.3 * $this->drying,
                    $this->sharpness,
                    $reaches * $this->supply,
                ),
                0.0,
                1.0,
            ];
        }
        $around = Surroundings::of($leg->holding);
        [$least, $most] = $around->transfer ?? [2.0, 10.0];
        [$coldest, $warmest] = $around->celsius ?? [20.0, 68.0];
        [$colder, $warmer, $fades] = $around->excess ?? [0.0, 0.0, 1.0];
        $transfer = 1.04 * $least * ($most / $least) ** $this->restTransfer * ($leg->isCovered ? 0.75 : 1.0);
        $isOpen = !$leg->isCovered && $leg->wrap === null && !\in_array(
            $leg->holding,
            [Holding::Towels, Holding::Box, Holding::Cabinet, Holding::IceBath, Holding::IceWand],
            true,
        );

        $air = $said === null
            ? $coldest + ($warmest - $coldest) * $this->restAir
            : $said + $this->restAside;

        return [
            new Surface(
                $air,
                $transfer,
                $isOpen ? 0.6 * $transfer : 0.0,
                // A kitchen's air; in the cold it holds no more than it can.
                min(900.0, self::HUMID * Body::saturation($air)),
                $isOpen ? min(0.9, ($leg->depth === null ? 1.0 : 2.0) * $this->restWetness) : 0.0,
                $leg->depth === null ? $this->drying : \INF,
                $this->sharpness,
            ),
            $said === null ? $colder + ($warmer - $colder) * $this->excess : 0.0,
            $fades,
        ];
    }

    /** 0 to 1, evenly likely for a normal number: the logistic function as near as matters. */
    private static function part(float $z): float
    {
        return 1.0 / (1.0 + exp(-1.702 * $z));
    }
}
