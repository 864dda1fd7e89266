<?php

declare(strict_types=1);

namespace Verjuicer\App\Ledger\Log;

use Psr\Log\LoggerInterface;
use Symfony\Component\EventDispatcher\Attribute\AsEventListener;
use Symfony\Component\HttpKernel\Event\TerminateEvent;
use Verjuicer\App\Ledger\Chain\KeyMissing;
use Verjuicer\App\Ledger\Chain\SealLog;

/** Seals new entries after the response, so that even the newest cannot be cut off unnoticed. */
final readonly class SealOnResponse
{
    public function __construct(private Ledger $ledger, private SealLog $seals, private LoggerInterface $logger)
    {
    }

    #[AsEventListener(event: TerminateEvent::class, priority: 20)]
    public function seal(): void
    {
        $site = $this->ledger->written();
        if ($site !== null) {
            try {
                $this->seals->note($site);
            } catch (KeyMissing $problem) {
                $this->logger->critical('What was recorded of site {site} cannot be sealed here.', [
                    'site' => $site->name,
                    'exception' => $problem,
                ]);
            }
        }
    }
}
