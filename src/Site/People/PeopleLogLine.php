<?php

declare(strict_types=1);

namespace Verjuicer\App\Site\People;

use Verjuicer\Core\Measure\Instant;

/** An action outside the record. */
final readonly class PeopleLogLine
{
    /** @param string $by initials; empty without an account */
    public function __construct(
        public string $id,
        public Instant $at,
        public string $by,
        public string $what,
        public string $about,
        public string $address,
    ) {
    }
}
