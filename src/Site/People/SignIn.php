<?php

declare(strict_types=1);

namespace Verjuicer\App\Site\People;

use Verjuicer\Core\Measure\Instant;

final readonly class SignIn
{
    /** @param bool $mayLast whether the sessions have not been ended since */
    public function __construct(
        public Instant $at,
        public string $address,
        public string $agent,
        public bool $mayLast,
    ) {
    }
}
