<?php

declare(strict_types=1);

namespace Verjuicer\App\Site\People;

/** Asks for the password again if it was last typed more than a few minutes ago. */
#[\Attribute(\Attribute::TARGET_METHOD)]
final readonly class RequiresRecentPassword
{
}
