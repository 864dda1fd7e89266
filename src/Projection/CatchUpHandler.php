<?php

declare(strict_types=1);

namespace Verjuicer\App\Projection;

use Symfony\Component\Messenger\Attribute\AsMessageHandler;

/** Works off what many changes left behind. */
#[AsMessageHandler]
final readonly class CatchUpHandler
{
    public function __construct(private Projections $projections)
    {
    }

    public function __invoke(CatchUp $message): void
    {
        $this->projections->catchUp($message->siteId, null);
    }
}
