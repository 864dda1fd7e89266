<?php

declare(strict_types=1);

namespace Verjuicer\App\Site\People;

/** What is asked for the password again where it was typed longer ago than a few minutes. */
#[\Attribute(\Attribute::TARGET_METHOD)]
final readonly class RequiresRecentPassword
{
}
