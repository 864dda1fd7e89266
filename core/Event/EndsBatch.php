<?php

declare(strict_types=1);

namespace Verjuicer\Core\Event;

/** An event of this kind begins a stage with which the batch is over. */
interface EndsBatch extends BeginsStage
{
}
