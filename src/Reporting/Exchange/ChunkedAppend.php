<?php

declare(strict_types=1);

namespace Verjuicer\App\Reporting\Exchange;

use Verjuicer\App\Ledger\Batch\Batch;
use Verjuicer\App\Ledger\Log\EventLog;
use Verjuicer\App\Ledger\Log\Ledger;
use Verjuicer\App\Site\People\Account;
use Verjuicer\Core\Record\Event;

/** Appends many events of a batch in writes of a fraction of a second each, so that entries at the pit do not wait. */
final readonly class ChunkedAppend
{
    private const EVENTS = 500;

    public function __construct(private Ledger $ledger, private EventLog $log)
    {
    }

    /**
     * @param list<Event> $events
     *
     * @return list<list<Event>> one, perhaps empty, or several; one event replaces another of its own part or an
     *     earlier one
     */
    public static function of(array $events): array
    {
        $part = [];
        foreach ($events as $order => $event) {
            $part[$event->id] = intdiv($order, self::EVENTS);
        }
        foreach ($events as $event) {
            if ($event->replaces !== null && ($part[$event->replaces] ?? 0) > $part[$event->id]) {
                return [$events];
            }
        }

        return $events === [] ? [[]] : array_chunk($events, self::EVENTS);
    }

    /**
     * Adds the rest of a batch that is new here, part by part: it is not judged before it is all in.
     *
     * @param list<list<Event>> $parts
     *
     * @throws ImportCancelled
     */
    public function append(Batch $batch, Account $by, array $parts, ImportProgress $taking): void
    {
        foreach ($parts as $index => $events) {
            $isLast = $index === \count($parts) - 1;
            $this->ledger->write(
                $batch->site,
                function () use ($batch, $by, $events, $isLast, $taking): void {
                    if ($isLast) {
                        $this->log->append($batch, $by, ...$events);
                        $this->log->holdTag($batch);
                        $this->ledger->changed($batch);
                    } else {
                        $this->log->appendPart($batch, $by, ...$events);
                    }
                    $taking->keep($isLast ? null : $batch);
                    if (!$isLast) {
                        $this->ledger->goesOn();
                    }
                },
            );
            $taking->tell(\count($events));
        }
    }
}
