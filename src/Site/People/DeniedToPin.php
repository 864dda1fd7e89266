<?php

declare(strict_types=1);

namespace Verjuicer\App\Site\People;

/** What nobody does who came in by a PIN on a shared tablet. */
#[\Attribute(\Attribute::TARGET_METHOD)]
final readonly class DeniedToPin
{
}
