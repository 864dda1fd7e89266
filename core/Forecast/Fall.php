<?php

declare(strict_types=1);

namespace Verjuicer\Core\Forecast;

use Verjuicer\Core\Forecast\Belief\Belief;
use Verjuicer\Core\Forecast\Belief\Odds;
use Verjuicer\Core\Measure\Instant;
use Verjuicer\Core\Measure\Span;

/** How meat off the heat is likely to fall. A forecast; it never clears food. */
final class Fall
{
    private const BEFORE = 15 * 60; // seconds by which the last reading that shows it hot is earlier than it is not

    /** @var array<int, Odds> by tenths of a degree */
    private array $odds = [];

    /**
     * @param float $celsius as it was read last
     * @param bool $isFromReadings whether it was read where it is
     * @param float $lowest °C that will be asked for
     */
    public function __construct(
        private readonly Belief $belief,
        public readonly Instant $from,
        public readonly float $celsius,
        public readonly bool $isFromReadings,
        float $lowest,
    ) {
        $this->odds($lowest);
    }

    /** When it may pass a temperature on its way down; null where it is not likely to. */
    public function crossing(float $celsius): ?Crossing
    {
        return $celsius >= $this->celsius
            ? new Crossing($this->from, $this->from, $this->from)
            : Crossing::of($this->odds($celsius));
    }

    /** 0 to 1: the chance that it has not passed a temperature at a moment. */
    public function late(float $celsius, Instant $deadline): float
    {
        return $celsius >= $this->celsius ? 0.0 : $this->odds($celsius)->after($deadline->epoch);
    }

    /**
     * 0 to 1: the chance to pass a temperature too late, where each reading above another restarts the time: along its
     * trajectory, as if read every half hour.
     *
     * @param Instant $deadline by the reading that was the last
     */
    public function lateFrom(float $hot, Span $limit, float $celsius, Instant $deadline): float
    {
        return $this->belief->lateAfter(
            $hot,
            $limit->seconds - self::BEFORE,
            $celsius,
            $deadline->epoch,
            Belief::WITHIN,
        );
    }

    /**
     * @param list<Instant> $moments in order
     *
     * @return list<array{float, float}> °C, the coldest and the warmest it may be at each, nine times in ten
     */
    public function at(array $moments): array
    {
        return $this->belief->between(array_map(static fn (Instant $one): int => $one->epoch, $moments));
    }

    /** The input that would narrow the time of passing a temperature most. */
    public function asks(float $celsius, bool $isCovered): NarrowingInput
    {
        return NarrowingInput::of($this->belief, $celsius, $isCovered);
    }

    /**
     * 0 to 1: the chance that it is not heated through in time, if it went back to the heat now.
     *
     * @param float|null $set °C of the pit, if set
     */
    public function heatedLate(?float $set, float $celsius, int $within): float
    {
        $leg = RemedyKind::BackOnHeat->leg($this->from->epoch, null, $set);

        return $this->belief->instead($leg)->crossing($celsius, true, $within)->after($this->from->epoch + $within);
    }

    /** How it would fall if it went on in another way from now. */
    public function instead(RemedyKind $kind, float $lowest): self
    {
        $leg = $kind->leg($this->from->epoch, $this->belief->depth(), null);

        return new self($this->belief->instead($leg), $this->from, $this->celsius, $this->isFromReadings, $lowest);
    }

    private function odds(float $celsius): Odds
    {
        return $this->odds[(int) round(10 * $celsius)] ??= $this->belief->crossing($celsius, false, Belief::WITHIN);
    }
}
