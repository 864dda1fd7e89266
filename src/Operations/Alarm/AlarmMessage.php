<?php

declare(strict_types=1);

namespace Verjuicer\App\Operations\Alarm;

use Verjuicer\Core\Measure\Instant;

/** A message to one person over one channel, and what became of it. */
final readonly class AlarmMessage
{
    /** @param string|null $problem why it was not taken yet */
    public function __construct(
        public AlarmChannel $channel,
        public string $name,
        public string $address,
        public ?Instant $sentAt,
        public ?string $problem,
    ) {
    }
}
