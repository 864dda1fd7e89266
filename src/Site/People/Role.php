<?php

declare(strict_types=1);

namespace Verjuicer\App\Site\People;

enum Role: string
{
    /** Looks, and changes nothing: an owner's bookkeeper, a trainee. */
    case Reader = 'reader';
    case Crew = 'crew';
    case Pitmaster = 'pitmaster';
    case Manager = 'manager';
    case Inspector = 'inspector';

    public function securityRole(): string
    {
        return 'ROLE_'.strtoupper($this->value);
    }
}
