<?php

declare(strict_types=1);

namespace Verjuicer\App\Work\Probe;

use Verjuicer\Core\Json\Fields;
use Verjuicer\Core\Json\Problem;
use Verjuicer\Core\Json\Problems;
use Verjuicer\Core\Measure\Instant;
use Verjuicer\Core\Measure\Temperature;

/** One reading as it was sent, or what is wrong with it. */
final readonly class PostedReading
{
    /** @param Temperature|null $temp null where it says that nothing is plugged in */
    private function __construct(
        public int $channel,
        public int $sequence,
        public ?Instant $at,
        public ?Temperature $temp,
        public ?Problem $problem,
    ) {
    }

    public static function read(mixed $given, string $pointer): self
    {
        if (!$given instanceof \stdClass) {
            return new self(0, 0, null, null, new Problem($pointer, 'must be an object'));
        }
        $problems = new Problems();
        $fields = new Fields($given, null, '', $problems);
        $channel = $fields->has('channel') ? $fields->requiredWhole('channel') : 1;
        $sequence = $fields->requiredWhole('sequence');
        if ($sequence < 0) {
            $fields->wrong('sequence', 'must not be negative');
        }
        $at = $fields->requiredInstant('at');
        $isUnplugged = $fields->flag('unplugged');
        $temp = $isUnplugged ? null : $fields->requiredTemperature('temp');
        $first = $problems->all()[0] ?? null;

        return new self(
            $channel,
            $sequence,
            $at,
            $temp,
            $first === null ? null : new Problem($pointer.$first->pointer, $first->message),
        );
    }
}
