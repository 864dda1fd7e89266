<?php

declare(strict_types=1);

namespace Verjuicer\Core\Forecast\Learning;

/** The values one finished batch gives for a product, a pit or a way to rest or cool. */
final readonly class LearnedSample
{
    /**
     * @param string $subject which product, pit or method
     * @param array<int, array{float, float}> $shown the likeliest in normal numbers, and how much of it the readings
     *     say, 0 to 1, by unknown of `ParameterSample`
     */
    public function __construct(public LearningSubject $of, public string $subject, public array $shown)
    {
    }
}
