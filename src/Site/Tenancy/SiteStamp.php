<?php

declare(strict_types=1);

namespace Verjuicer\App\Site\Tenancy;

use Symfony\Component\Messenger\Stamp\StampInterface;

/** The site a message was sent in: it is worked off in no other. */
final readonly class SiteStamp implements StampInterface
{
    public function __construct(public string $siteId)
    {
    }
}
