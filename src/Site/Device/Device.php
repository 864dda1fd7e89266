<?php

declare(strict_types=1);

namespace Verjuicer\App\Site\Device;

use Verjuicer\Core\Measure\Instant;

/** A tablet several people use, as a manager registered it. */
final readonly class Device
{
    public function __construct(
        public string $id,
        public string $siteId,
        public string $name,
        public int $quietMinutes,
        public Instant $registeredAt,
        public string $registeredBy,
        public ?Instant $revokedAt,
    ) {
    }
}
