<?php

declare(strict_types=1);

namespace Verjuicer\Core\Series;

/**
 * Chooses the samples of a channel for the record: both sides of every crossing of a limit and of every gap, every
 * turn, every new extreme, and one a minute. The immutable state of one channel: each sample gives a new one.
 *
 * The record then has the same result as with every sample: no limit is crossed between two kept ones, and every span
 * of a rule is longer than a minute.
 */
final readonly class Thinning
{
    /** Seconds. */
    public const EVERY = 60;
    /** Ninetieths of a degree Celsius it must come back by for a turn to be one: 2 °F. */
    private const TURN = 100;

    private function __construct(
        private ?Sample $kept = null,
        private ?Sample $last = null,
        private ?Sample $extreme = null,
        private int $direction = 0,
        private ?Sample $highest = null,
        private ?Sample $lowest = null,
    ) {
    }

    public static function start(): self
    {
        return new self();
    }

    /** When it last saw something: seconds since 1970. */
    public function lastAt(): ?int
    {
        return $this->last?->at;
    }

    /**
     * @param Sample $sample with a temperature, and no earlier than those before it
     *
     * @return array{self, list<Sample>} the new state, and samples for the record, by time; a sample may be named twice
     */
    public function see(Sample $sample, LimitBands $bands): array
    {
        $temp = $sample->temp ?? throw new \LogicException('A sample without a temperature is no food.');
        if ($this->last?->temp === null || $this->kept === null) {
            return [new self($sample, $sample, $sample, 0, $sample, $sample), [$sample]];
        }
        $keep = [];
        $isGap = $sample->at - $this->last->at > self::EVERY;
        if ($isGap || !$bands->areOne($this->last->temp, $temp)) {
            $keep = [$this->last, $sample];
        }
        [$extreme, $direction, $turn] = $this->turned($sample);
        if ($turn !== null) {
            $keep[] = $turn;
        }
        $highest = self::level($sample) > self::level($this->highest) ? $sample : $this->highest;
        $lowest = self::level($sample) < self::level($this->lowest) ? $sample : $this->lowest;
        if ($sample->at - $this->kept->at >= self::EVERY) {
            array_push($keep, $sample, ...array_filter([$highest, $lowest]));
        }
        $kept = self::inOrder($keep, $this->kept);

        return [
            new self(
                $kept === [] ? $this->kept : $kept[\count($kept) - 1],
                $sample,
                $extreme,
                $direction,
                $highest,
                $lowest,
            ),
            $kept,
        ];
    }

    /** @return list<Sample> samples still due for the record if no more come for now */
    public function rest(): array
    {
        return $this->last === null || $this->last === $this->kept || $this->last->sequence === $this->kept?->sequence
            ? []
            : [$this->last];
    }

    /**
     * The samples on both sides of a moment: a stage that begins there cuts the record between them.
     *
     * @param iterable<Sample> $samples by time
     *
     * @return list<Sample>
     */
    public static function around(int $at, iterable $samples): array
    {
        $before = null;
        $kept = [];
        foreach ($samples as $sample) {
            if ($sample->at < $at) {
                $before = $sample;
                continue;
            }
            $kept[] = $sample;
            if ($sample->at > $at) {
                break;
            }
        }

        return $before === null ? $kept : [$before, ...$kept];
    }

    /** @return array<string, mixed> */
    public function toArray(): array
    {
        return [
            'kept' => Sample::written($this->kept),
            'last' => Sample::written($this->last),
            'extreme' => Sample::written($this->extreme),
            'direction' => $this->direction,
            'highest' => Sample::written($this->highest),
            'lowest' => Sample::written($this->lowest),
        ];
    }

    /** @param array<mixed> $written by toArray() */
    public static function ofArray(array $written): self
    {
        return new self(
            Sample::read($written['kept'] ?? null),
            Sample::read($written['last'] ?? null),
            Sample::read($written['extreme'] ?? null),
            \is_int($written['direction'] ?? null) ? $written['direction'] : 0,
            Sample::read($written['highest'] ?? null),
            Sample::read($written['lowest'] ?? null),
        );
    }

    /** @return array{Sample|null, int, Sample|null} the extreme since the last turn, the way it goes, and a turn */
    private function turned(Sample $sample): array
    {
        $rise = self::level($sample) - self::level($this->extreme);
        if ($rise === 0) {
            return [$this->extreme, $this->direction, null];
        }
        $way = $rise > 0 ? 1 : -1;
        if ($this->direction === 0 || $way === $this->direction) {
            $isClear = $this->direction !== 0 || abs($rise) >= self::TURN;

            return [$isClear ? $sample : $this->extreme, $isClear ? $way : 0, null];
        }

        return abs($rise) >= self::TURN
            ? [$sample, $way, $this->extreme]
            : [$this->extreme, $this->direction, null];
    }

    /**
     * @param list<Sample> $samples
     *
     * @return list<Sample> by time, each once, without the one that was kept last
     */
    private static function inOrder(array $samples, Sample $before): array
    {
        $bySequence = [];
        foreach ($samples as $sample) {
            if ($sample->sequence !== $before->sequence) {
                $bySequence[$sample->sequence] = $sample;
            }
        }
        $place = static fn (Sample $one): array => [$one->at, $one->sequence];
        usort($bySequence, static fn (Sample $one, Sample $other): int => $place($one) <=> $place($other));

        return $bySequence;
    }

    private static function level(?Sample $sample): int
    {
        return $sample?->temp->ninetieths ?? 0;
    }
}
