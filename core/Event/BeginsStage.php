<?php

declare(strict_types=1);

namespace Verjuicer\Core\Event;

/** An event of this kind begins a stage, which lasts to the next. */
interface BeginsStage extends Detail
{
}
