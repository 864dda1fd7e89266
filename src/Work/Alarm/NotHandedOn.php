<?php

declare(strict_types=1);

namespace Verjuicer\App\Work\Alarm;

/** A message was not taken; it is tried again. */
final class NotHandedOn extends \RuntimeException
{
}
