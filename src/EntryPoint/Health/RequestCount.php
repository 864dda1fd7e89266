<?php

declare(strict_types=1);

namespace Verjuicer\App\EntryPoint\Health;

use Symfony\Component\EventDispatcher\Attribute\AsEventListener;
use Symfony\Component\HttpKernel\Event\TerminateEvent;

/** How many requests this machine answered since its server began, by the first digit of the status; in memory. */
final readonly class RequestCount
{
    private const KEY = 'verjuicer.requests.';

    #[AsEventListener]
    public function count(TerminateEvent $event): void
    {
        if (apcu_enabled()) {
            apcu_inc(self::KEY.intdiv($event->getResponse()->getStatusCode(), 100));
        }
    }

    /** @return array<int, int> by first digit */
    public function all(): array
    {
        $counts = [];
        foreach ([2, 3, 4, 5] as $digit) {
            $count = apcu_enabled() ? apcu_fetch(self::KEY.$digit) : 0;
            $counts[$digit] = \is_int($count) ? $count : 0;
        }

        return $counts;
    }
}
