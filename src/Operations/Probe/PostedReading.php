<?php

declare(strict_types=1);

namespace Verjuicer\App\Operations\Probe;

use Verjuicer\Core\Json\DocumentProblem;
use Verjuicer\Core\Json\DocumentProblems;
use Verjuicer\Core\Json\Fields;
use Verjuicer\Core\Measure\Instant;
use Verjuicer\Core\Measure\Temperature;

/** One reading as it was sent, or what is wrong with it. */
final readonly class PostedReading
{
    /** The highest whole number that every reader of JSON keeps exactly: 2^53 − 1. */
    private const HIGHEST = 9_007_199_254_740_991;
    private const MOST_CHANNELS = 1000;
    /** A sensor without a clock begins in 1970; nothing of it is later than that. */
    private const LATEST = 4_102_444_800; // 1 January 2100

    /** @param Temperature|null $temp null where it says that nothing is plugged in */
    private function __construct(
        public int $channel,
        public int $sequence,
        public ?Instant $at,
        public ?Temperature $temp,
        public ?DocumentProblem $problem,
    ) {
    }

    /** Whether a clock may say so: what is beyond is no wrong clock but a wrong number. */
    public static function isPlausible(Instant $at): bool
    {
        return $at->epoch >= 0 && $at->epoch < self::LATEST;
    }

    public static function read(mixed $given, string $pointer): self
    {
        if (!$given instanceof \stdClass) {
            return new self(0, 0, null, null, new DocumentProblem($pointer, 'must be an object'));
        }
        $problems = new DocumentProblems();
        $fields = new Fields($given, null, '', $problems);
        $channel = $fields->has('channel') ? $fields->requiredWhole('channel') : 1;
        $sequence = $fields->requiredWhole('sequence');
        if ($sequence > self::HIGHEST) {
            $fields->wrong('sequence', 'must be at most '.self::HIGHEST.': begin again from 0');
        }
        if ($channel > self::MOST_CHANNELS) {
            $fields->wrong('channel', 'must be a whole number from 1 to '.self::MOST_CHANNELS);
        }
        $at = $fields->requiredInstant('at');
        if ($at !== null && !self::isPlausible($at)) {
            $fields->wrong('at', 'must lie between 1970 and 2100');
        }
        $isUnplugged = $fields->flag('unplugged');
        $temp = $isUnplugged ? null : $fields->requiredTemperature('temp');
        $first = $problems->all()[0] ?? null;

        return new self(
            $channel,
            $sequence,
            $at,
            $temp,
            $first === null ? null : new DocumentProblem($pointer.$first->pointer, $first->message),
        );
    }
}
