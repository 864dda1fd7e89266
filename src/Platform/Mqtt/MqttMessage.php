<?php

declare(strict_types=1);

namespace Verjuicer\App\Platform\Mqtt;

/** A published message. */
final readonly class MqttMessage
{
    public function __construct(public string $topic, public string $payload)
    {
    }
}
