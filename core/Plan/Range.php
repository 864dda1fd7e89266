<?php

declare(strict_types=1);

namespace Verjuicer\Core\Plan;

/** From the least to the most of something. */
final readonly class Range
{
    public function __construct(public float $least, public float $most)
    {
    }

    public function times(self $other): self
    {
        return new self($this->least * $other->least, $this->most * $other->most);
    }

    public function likely(): float
    {
        return ($this->least + $this->most) / 2;
    }

    /**
     * The middle half of the values, a little wider; a few values give no closer range.
     *
     * @param non-empty-list<float> $found
     */
    public static function found(array $found): self
    {
        sort($found);
        $last = \count($found) - 1;
        $at = static fn (float $part): float => $found[(int) floor($part * $last)]
            + ($part * $last - floor($part * $last))
                * ($found[(int) ceil($part * $last)] - $found[(int) floor($part * $last)]);

        return new self($at(0.15), $at(0.85));
    }
}
