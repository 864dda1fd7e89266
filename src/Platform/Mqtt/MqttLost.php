<?php

declare(strict_types=1);

namespace Verjuicer\App\Platform\Mqtt;

/** The broker is not to be reached, or refuses. What it holds for us comes once it is. */
final class MqttLost extends \RuntimeException
{
}
