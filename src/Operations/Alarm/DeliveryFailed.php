<?php

declare(strict_types=1);

namespace Verjuicer\App\Operations\Alarm;

/** A message was not taken; it is tried again. */
final class DeliveryFailed extends \RuntimeException
{
}
