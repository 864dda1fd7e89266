<?php

declare(strict_types=1);

namespace Verjuicer\Core\Series;

/**
 * Which numbers of a channel's sequence never came. A sensor that sends late, or the newest first, has ten minutes to
 * fill a gap before it is reported. Never changed; see() returns the next state.
 */
final readonly class SequenceGaps
{
    /** Seconds after which a missing number is reported. */
    private const PATIENCE = 600;
    /** A step beyond that is a sensor that counts from somewhere else, not a gap. */
    private const LONGEST = 1_000_000;
    private const MOST_OPEN = 50;

    /**
     * @param int|null $last the highest number that came
     * @param int|null $lastAt when, in seconds since 1970
     * @param list<array{int, int, int, int}> $open first and last missing number, and the moments of their neighbours
     */
    private function __construct(private ?int $last = null, private ?int $lastAt = null, private array $open = [])
    {
    }

    public static function start(): self
    {
        return new self();
    }

    /**
     * @param list<Sample> $samples that are new, in any order
     *
     * @return array{self, list<SensorFault>} the new state, and the gaps it reports
     */
    public function see(array $samples): array
    {
        [$last, $lastAt, $open] = [$this->last, $this->lastAt, $this->open];
        usort($samples, static fn (Sample $one, Sample $other): int => $one->sequence <=> $other->sequence);
        $newest = $this->lastAt ?? 0;
        foreach ($samples as $sample) {
            $newest = max($newest, $sample->at);
            if ($last === null || $sample->sequence > $last) {
                $missing = $last === null ? 0 : $sample->sequence - $last - 1;
                if ($last !== null && $missing > 0 && $missing <= self::LONGEST) {
                    $open[] = [$last + 1, $sample->sequence - 1, $lastAt ?? $sample->at, $sample->at];
                }
                [$last, $lastAt] = [$sample->sequence, $sample->at];
            } else {
                $open = self::filled($open, $sample);
            }
        }
        $faults = $waiting = [];
        foreach ($open as $gap) {
            if ($newest - $gap[3] > self::PATIENCE || \count($open) - \count($faults) > self::MOST_OPEN) {
                $count = $gap[1] - $gap[0] + 1;
                $faults[] = new SensorFault(
                    SensorFaultKind::Missing,
                    min($gap[2], $gap[3]),
                    max($gap[2], $gap[3]),
                    $count,
                );
            } else {
                $waiting[] = $gap;
            }
        }

        return [new self($last, $lastAt, $waiting), $faults];
    }

    /**
     * @param list<array{int, int, int, int}> $open
     *
     * @return list<array{int, int, int, int}>
     */
    private static function filled(array $open, Sample $sample): array
    {
        $left = [];
        foreach ($open as [$from, $to, $fromAt, $toAt]) {
            if ($sample->sequence < $from || $sample->sequence > $to) {
                $left[] = [$from, $to, $fromAt, $toAt];
                continue;
            }
            if ($sample->sequence > $from) {
                $left[] = [$from, $sample->sequence - 1, $fromAt, $toAt];
            }
            if ($sample->sequence < $to) {
                $left[] = [$sample->sequence + 1, $to, $sample->at, $toAt];
            }
        }

        return $left;
    }

    /** @return array{int|null, int|null, list<array{int, int, int, int}>} as ofArray() takes it */
    public function toArray(): array
    {
        return [$this->last, $this->lastAt, $this->open];
    }

    /** @param int|null $last the highest number that came, where nothing was written yet */
    public static function ofArray(mixed $written, ?int $last, ?int $lastAt): self
    {
        if (!\is_array($written) || \count($written) !== 3) {
            return new self($last, $lastAt);
        }
        [$last, $lastAt, $gaps] = array_values($written);
        $open = [];
        foreach (\is_array($gaps) ? $gaps : [] as $gap) {
            $numbers = \is_array($gap) ? array_values(array_filter($gap, \is_int(...))) : [];
            if (\count($numbers) === 4) {
                $open[] = [$numbers[0], $numbers[1], $numbers[2], $numbers[3]];
            }
        }

        return new self(\is_int($last) ? $last : null, \is_int($lastAt) ? $lastAt : null, $open);
    }
}
