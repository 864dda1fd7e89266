<?php

declare(strict_types=1);

namespace Verjuicer\App\Platform\Mqtt;

/** The broker cannot be reached, or refuses. It keeps our messages until then. */
final class MqttLost extends \RuntimeException
{
}
