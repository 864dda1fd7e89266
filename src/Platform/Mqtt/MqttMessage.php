<?php

declare(strict_types=1);

namespace Verjuicer\App\Platform\Mqtt;

/** What somebody published. */
final readonly class MqttMessage
{
    public function __construct(public string $topic, public string $payload)
    {
    }
}
