<?php

declare(strict_types=1);

namespace Verjuicer\Core\Series;

use Verjuicer\Core\Measure\Temperature;
use Verjuicer\Core\Ruleset\PlausibleReadings;

/** Finds faults of a channel from one sample to the next. Immutable; reassigning the channel starts a new one. */
final readonly class ChannelWatch
{
    /** Seconds without a sample after which it is silent. */
    public const SILENT = 180;
    /** Seconds and samples of the very same figure after which it hangs: of one that shows tenths. */
    private const STUCK = 1800;
    /** The same where it shows whole degrees only, or hangs in air that something holds. */
    private const STUCK_COARSE = 90 * 60;
    private const STUCK_SAMPLES = 20;
    /** Ninetieths of a degree Celsius meat is hotter by than its pit where the two are taken for each other: 20 °F. */
    private const REVERSED = 1000;
    private const REVERSED_FOR = 600;
    /** A probe that jumped is back where it was when it reads as it would have, this many seconds on at the most. */
    private const BACK_WITHIN = 300;

    /**
     * @param array<string, int> $open since when, by the kind of fault
     */
    private function __construct(
        private ?Sample $good = null,
        private ?Sample $same = null,
        private int $sameCount = 0,
        private bool $isFine = false,
        private bool $wasCoolerThanPit = false,
        private ?int $hotterSince = null,
        private array $open = [],
        private ?int $lastAt = null,
    ) {
    }

    public static function start(): self
    {
        return new self();
    }

    /**
     * @param Temperature|null $pit how hot the pit is that it cooks in, where a channel says so
     *
     * @return array{self, list<SensorFault>} the new state, and the faults that began or ended with it
     */
    public function see(Sample $sample, bool $isFood, PlausibleReadings $plausible, ?Temperature $pit = null): array
    {
        $open = $this->open;
        $temp = $sample->temp;
        $isSame = $temp !== null && $this->same?->temp !== null && $this->same->temp->unit === $temp->unit
            && $this->same->temp->tenths === $temp->tenths;
        $same = $isSame ? $this->same ?? $sample : $sample;
        $sameCount = $isSame ? $this->sameCount + 1 : 1;
        $isFine = $this->isFine || ($temp !== null && $temp->tenths % 10 !== 0);
        [$wasCooler, $hotterSince] = $this->besidePit($sample, $pit);
        $isOff = $isFood && $temp !== null && $plausible->isOffScale($temp);
        $hasJumped = $isFood && $temp !== null && !$isOff && $this->hasJumped($sample, $plausible);
        $stuckFor = $isFine && $isFood ? self::STUCK : self::STUCK_COARSE;
        $now = [
            SensorFaultKind::Unplugged->value => $temp === null,
            SensorFaultKind::OutOfRange->value => $isOff,
            SensorFaultKind::Jumped->value => $hasJumped,
            SensorFaultKind::Stuck->value => $temp !== null && $sameCount >= self::STUCK_SAMPLES
                && $sample->at - $same->at >= $stuckFor,
            SensorFaultKind::Reversed->value => $isFood && $hotterSince !== null
                && $sample->at - $hotterSince >= self::REVERSED_FOR,
        ];
        $faults = $this->silenceBefore($sample);
        foreach ($now as $kind => $isSo) {
            if ($isSo && !isset($open[$kind])) {
                $open[$kind] = $sample->at;
                $faults[] = new SensorFault(SensorFaultKind::from($kind), $sample->at, null);
            } elseif (!$isSo && isset($open[$kind])) {
                $faults[] = new SensorFault(SensorFaultKind::from($kind), $open[$kind], $sample->at);
                unset($open[$kind]);
            }
        }
        $isGood = $temp !== null && !$isOff && !$hasJumped;

        return [
            new self(
                $isGood ? $sample : $this->good,
                $same,
                $sameCount,
                $isFine,
                $wasCooler,
                $hotterSince,
                $open,
                $sample->at,
            ),
            $faults,
        ];
    }

    /** Whether its samples count as food now. */
    public function isFood(): bool
    {
        foreach (array_keys($this->open) as $kind) {
            if (SensorFaultKind::from($kind)->isNoFood()) {
                return false;
            }
        }

        return true;
    }

    /** Whether nothing came for longer than it sends. */
    public function isSilentAt(int $now): bool
    {
        return $this->lastAt !== null && $now - $this->lastAt > self::SILENT;
    }

    /** @return array<string, mixed> */
    public function toArray(): array
    {
        return [
            'good' => Sample::written($this->good),
            'same' => Sample::written($this->same),
            'same_count' => $this->sameCount,
            'is_fine' => $this->isFine,
            'was_cooler' => $this->wasCoolerThanPit,
            'hotter_since' => $this->hotterSince,
            'open' => $this->open,
            'last_at' => $this->lastAt,
        ];
    }

    /** @param array<mixed> $written by toArray() */
    public static function ofArray(array $written): self
    {
        $open = [];
        foreach (\is_array($written['open'] ?? null) ? $written['open'] : [] as $kind => $since) {
            if (\is_string($kind) && \is_int($since) && SensorFaultKind::tryFrom($kind) !== null) {
                $open[$kind] = $since;
            }
        }
        $whole = static fn (string $name): ?int => \is_int($written[$name] ?? null) ? $written[$name] : null;

        return new self(
            Sample::read($written['good'] ?? null),
            Sample::read($written['same'] ?? null),
            $whole('same_count') ?? 0,
            ($written['is_fine'] ?? false) === true,
            ($written['was_cooler'] ?? false) === true,
            $whole('hotter_since'),
            $open,
            $whole('last_at'),
        );
    }

    /** @return array{bool, int|null} whether the pit was ever the hotter, and else since when it is much the cooler */
    private function besidePit(Sample $sample, ?Temperature $pit): array
    {
        if ($pit === null || $sample->temp === null || $this->wasCoolerThanPit) {
            return [$this->wasCoolerThanPit, null];
        }
        $over = $sample->temp->ninetieths - $pit->ninetieths;

        return [$over < 0, $over >= self::REVERSED ? $this->hotterSince ?? $sample->at : null];
    }

    private function hasJumped(Sample $sample, PlausibleReadings $plausible): bool
    {
        if ($this->good?->temp === null || $sample->temp === null) {
            return false;
        }
        $since = $this->open[SensorFaultKind::Jumped->value] ?? $sample->at;
        $seconds = $since - $this->good->at + min(self::BACK_WITHIN, $sample->at - $since);

        return $plausible->isImpossible($this->good->temp, $sample->temp, $seconds);
    }

    /** @return list<SensorFault> */
    private function silenceBefore(Sample $sample): array
    {
        return $this->lastAt !== null && $sample->at - $this->lastAt > self::SILENT
            ? [new SensorFault(SensorFaultKind::Silent, $this->lastAt, $sample->at)]
            : [];
    }
}
