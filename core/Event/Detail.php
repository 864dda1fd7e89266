<?php

declare(strict_types=1);

namespace Verjuicer\Core\Event;

/**
 * What an event says beyond who, when and which kind: one small class a kind, in Kinds/, which declares all there is to
 * know of the kind.
 */
interface Detail
{
}
