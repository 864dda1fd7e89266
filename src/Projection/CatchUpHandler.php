<?php

declare(strict_types=1);

namespace Verjuicer\App\Projection;

use Symfony\Component\Messenger\Attribute\AsMessageHandler;
use Symfony\Component\Uid\Uuid;
use Verjuicer\App\Site\Tenancy\Tenant;

/** Works through the backlog after many changes. */
#[AsMessageHandler(sign: true)]
final readonly class CatchUpHandler
{
    public function __construct(private Projections $projections, private Tenant $tenant)
    {
    }

    public function __invoke(CatchUp $message): void
    {
        // Also for a command of the machine's operator, who is in no site.
        $this->tenant->within(
            Uuid::fromString($message->siteId),
            fn () => $this->projections->catchUp($message->siteId, null),
        );
    }
}
