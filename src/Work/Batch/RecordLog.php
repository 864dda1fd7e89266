<?php

declare(strict_types=1);

namespace Verjuicer\App\Work\Batch;

use Verjuicer\Core\Measure\Span;
use Verjuicer\Core\Record\Event;
use Verjuicer\Core\Record\Record;

/** Every event of a record as it was written down, the latest first, what was replaced still there. */
final readonly class RecordLog
{
    /**
     * @param Span $lateAfter an entry is late that was written down longer than this after it happened
     *
     * @return list<array{event: Event, replaced_by: Event|null, late: Span|null}>
     */
    public static function of(Record $record, Span $lateAfter): array
    {
        $replacedBy = [];
        foreach ($record->events as $event) {
            if ($event->replaces !== null) {
                $replacedBy[$event->replaces] = $event;
            }
        }
        $log = [];
        foreach ($record->events as $event) {
            $late = $event->recordedAt === null ? null : Span::between($event->at, $event->recordedAt);
            $log[] = [
                'event' => $event,
                'replaced_by' => $replacedBy[$event->id] ?? null,
                'late' => $late !== null && $late->isLongerThan($lateAfter) ? $late : null,
            ];
        }
        usort($log, static fn (array $one, array $other): int => $other['event']->at->epoch <=> $one['event']->at->epoch);

        return $log;
    }
}
