<?php

declare(strict_types=1);

namespace Verjuicer\Core\Series;

/**
 * Chooses the samples of a pit's air for its log: changes, and otherwise one in ten minutes. No verdict depends on
 * them. Immutable: each sample gives a new state.
 */
final readonly class AirThinning
{
    private const EVERY = 600;
    /** Ninetieths of a degree Celsius: 5 °F. */
    private const MOVED = 250;

    private function __construct(private ?Sample $kept = null)
    {
    }

    public static function start(): self
    {
        return new self();
    }

    /** @return array{self, bool} whether it is written down */
    public function see(Sample $sample): array
    {
        $before = $this->kept?->temp;
        $isKept =
            $this->kept === null
            || $before === null
            || $sample->at - $this->kept->at >= self::EVERY
            || abs(($sample->temp->ninetieths ?? 0) - $before->ninetieths) >= self::MOVED;

        return [$isKept ? new self($sample) : $this, $isKept];
    }

    /** @return array<string, mixed> */
    public function toArray(): array
    {
        return ['kept' => Sample::written($this->kept)];
    }

    /** @param array<mixed> $written by toArray() */
    public static function ofArray(array $written): self
    {
        return new self(Sample::read($written['kept'] ?? null));
    }
}
