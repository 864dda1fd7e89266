<?php

declare(strict_types=1);

namespace Verjuicer\App\Site\Settings;

use Verjuicer\Core\Measure\Instant;

/**
 * Requested settings.
 *
 * @phpstan-import-type Values from SiteValues
 */
final readonly class RequestedSettings
{
    /** @param Values $values */
    public function __construct(public array $values, public Instant $rulesFrom, public string $reason)
    {
    }
}
