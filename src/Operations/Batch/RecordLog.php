<?php

declare(strict_types=1);

namespace Verjuicer\App\Operations\Batch;

use Verjuicer\Core\Event\Kinds\Reading;
use Verjuicer\Core\Event\Kinds\Voided;
use Verjuicer\Core\Measure\Span;
use Verjuicer\Core\Record\Event;
use Verjuicer\Core\Record\Record;

/**
 * Every event of a record as it was written down, the latest first, what was replaced still there; what was taken back
 * together is one line.
 */
final readonly class RecordLog
{
    /**
     * @param Span $lateAfter an entry is late that was written down longer than this after it happened
     *
     * @return list<LogRow>
     */
    public static function of(Record $record, Span $lateAfter): array
    {
        $replacedBy = $readings = $ranges = [];
        foreach ($record->events as $event) {
            if ($event->replaces !== null) {
                $replacedBy[$event->replaces] = $event;
            }
            if ($event->detail instanceof Reading) {
                $readings[$event->id] = $event;
            }
            $struck = $readings[$event->replaces ?? ''] ?? null;
            if ($event->detail instanceof Voided && $event->detail->range !== null && $struck !== null) {
                $ranges[$event->detail->range][] = $struck;
            }
        }
        $log = $seen = [];
        foreach ($record->events as $event) {
            $late = $event->recordedAt === null ? null : Span::between($event->at, $event->recordedAt);
            $range = $event->detail instanceof Voided ? $event->detail->range : null;
            if ($range !== null && isset($seen[$range])) {
                continue;
            }
            $seen[$range ?? ''] = true;
            $log[] = new LogRow(
                $event,
                $replacedBy[$event->id] ?? null,
                $late !== null && $late->isLongerThan($lateAfter) ? $late : null,
                self::range($ranges[$range ?? ''] ?? []),
            );
        }
        usort(
            $log,
            static fn (LogRow $one, LogRow $other): int => $other->event->at->epoch <=> $one->event->at->epoch,
        );

        return $log;
    }

    /**
     * @param list<Event> $struck readings of one track
     */
    private static function range(array $struck): ?LogRange
    {
        if ($struck === []) {
            return null;
        }
        usort($struck, static fn (Event $one, Event $other): int => $one->at->epoch <=> $other->at->epoch);
        $detail = $struck[0]->detail;
        \assert($detail instanceof Reading, 'only those are taken back together');

        return new LogRange(\count($struck), $detail->piece, $detail->spot, $struck[0], $struck[\count($struck) - 1]);
    }
}
