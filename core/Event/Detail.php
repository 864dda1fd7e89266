<?php

declare(strict_types=1);

namespace Verjuicer\Core\Event;

/**
 * The fields of an event besides person, time and kind. One small class per kind, in `Kinds/`, declares everything
 * about the kind.
 */
interface Detail
{
}
