<?php

declare(strict_types=1);

namespace Verjuicer\App\Operations\Alarm;

use Verjuicer\Core\Measure\Instant;

/** What a stand-in was given to send. */
final readonly class FakeGatewayMessage
{
    public function __construct(
        public string $channel,
        public string $to,
        public string $words,
        public Instant $at,
    ) {
    }
}
