<?php

declare(strict_types=1);

namespace Verjuicer\App\Work\Alarm;

use Verjuicer\Core\Measure\Instant;

/** A message to one person over one channel, and what became of it. */
final readonly class Sending
{
    /** @param string|null $problem why it was not taken yet */
    public function __construct(
        public Channel $channel,
        public string $name,
        public string $address,
        public ?Instant $sentAt,
        public ?string $problem,
    ) {
    }
}
