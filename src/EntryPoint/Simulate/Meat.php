<?php

declare(strict_types=1);

namespace Verjuicer\App\EntryPoint\Simulate;

use Verjuicer\Core\Thermal\Body;
use Verjuicer\Core\Thermal\Composition;
use Verjuicer\Core\Thermal\MeatProperties;
use Verjuicer\Core\Thermal\Surface;

/** The meat of a batch, as it goes on where its record stops. */
final class Meat
{
    private const CELLS = 10;
    private const STEP = 30.0;

    private readonly Body $body;

    /** Seconds that meat has been in its stage at the most. */
    private const WARMED_UP = 86400.0;

    /**
     * @param float $half m from the middle to the surface
     * @param non-empty-array<int, string> $tracks probe location by piece
     */
    private function __construct(
        float $celsius,
        float $half,
        public string $stage,
        public int $stageSince,
        public readonly array $tracks,
    ) {
        $this->body = Body::even(MeatProperties::of(Composition::marbled()), $half, 1.2, $celsius, self::CELLS);
    }

    /**
     * Meat whose middle was read in a stage: on the heat its outside is hotter by then, in a cooling it is colder.
     *
     * @param float $core °C
     * @param float $half m from the middle to the surface
     * @param non-empty-array<int, string> $tracks probe location by piece, as the crew measures it
     * @param int $ago seconds since it was read
     * @param \Closure(self): float $around °C of the air
     */
    public static function underWay(
        float $core,
        float $half,
        string $stage,
        int $since,
        array $tracks,
        int $ago,
        \Closure $around,
    ): self {
        $begun = match ($stage) {
            'cook', 'reheat' => min($core, 4.0),
            'cool' => max($core, 85.0),
            default => $core,
        };
        $meat = new self($begun, $half, $stage, $since, $tracks);
        $air = $around($meat);
        for ($seconds = 0.0; $seconds < self::WARMED_UP; $seconds += self::STEP) {
            $middle = $meat->body->middle();
            if ($begun < $core ? $middle >= $core : $middle <= $core) {
                break;
            }
            $meat->step(self::STEP, $air);
        }
        $meat->step((float) $ago, $air);

        return $meat;
    }

    /** @param float $air °C around it */
    public function step(float $seconds, float $air): void
    {
        $surface = match ($this->stage) {
            'cook', 'reheat' => new Surface($air, 22.0, 14.0, 2500.0, 0.55, 0.9, 2.0),
            'rest' => Surface::dry($air, 4.0),
            'hot_hold' => Surface::dry($air, 9.0),
            'cool' => new Surface($air, 30.0, 20.0, 700.0, 0.3, 1.5),
            default => Surface::dry($air, 8.0),
        };
        for (; $seconds > 0.0; $seconds -= self::STEP) {
            $this->body->step(min(self::STEP, $seconds), $surface);
        }
    }

    /** °F in the middle. */
    public function core(): float
    {
        return 32.0 + 1.8 * $this->body->middle();
    }
}
