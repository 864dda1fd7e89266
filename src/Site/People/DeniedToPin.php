<?php

declare(strict_types=1);

namespace Verjuicer\App\Site\People;

/** Denies an action to a person logged in by PIN on a shared tablet. */
#[\Attribute(\Attribute::TARGET_METHOD)]
final readonly class DeniedToPin
{
}
