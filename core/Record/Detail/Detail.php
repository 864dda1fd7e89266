<?php

declare(strict_types=1);

namespace Verjuicer\Core\Record\Detail;

/** What an event says beyond who, when and which kind. */
interface Detail
{
    /** @return array<string, mixed> the members of the open format, absent ones as null */
    public function members(): array;
}
