<?php

declare(strict_types=1);

namespace Verjuicer\App\Reporting\Trends;

use Verjuicer\App\Projection\Learning\LearnedPrior;
use Verjuicer\Core\Measure\TemperatureUnit;

/** A product, a pit or a method, with all versions of its learned values. */
final readonly class SubjectHistory
{
    /** @param list<LearnedVersion> $others the latest first */
    private function __construct(
        public string $about,
        public string $subject,
        public ?LearnedVersion $inForce,
        public array $others,
    ) {
    }

    /**
     * @param list<LearnedPrior> $priors by subject, the latest of each first
     *
     * @return list<self>
     */
    public static function all(array $priors, TemperatureUnit $unit): array
    {
        $subjects = [];
        foreach ($priors as $prior) {
            $key = $prior->about->value."\n".$prior->subject;
            $known = $subjects[$key] ?? new self($prior->about->value, $prior->subject, null, []);
            $version = LearnedVersion::of($prior, $unit);
            $subjects[$key] = new self(
                $known->about,
                $known->subject,
                $prior->isInForce ? $version : $known->inForce,
                $prior->isInForce ? $known->others : [...$known->others, $version],
            );
        }

        return array_values($subjects);
    }
}
