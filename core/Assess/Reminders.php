<?php

declare(strict_types=1);

namespace Verjuicer\Core\Assess;

use Verjuicer\Core\Assess\Evidence\Timeline;
use Verjuicer\Core\Event\Kinds\Cook;
use Verjuicer\Core\Event\Kinds\Note;
use Verjuicer\Core\Food\NoteStep;
use Verjuicer\Core\Measure\Instant;
use Verjuicer\Core\Measure\Span;
use Verjuicer\Core\Record\Event;

/**
 * The open reminders of a batch: at an interval while it cooks, after a time in the cook, from a temperature on, or by
 * sight. A reminder is done when its step is recorded or when it is ticked off.
 */
final readonly class Reminders
{
    /** @return list<Reminder> in the order they were written down */
    public static function of(Timeline $timeline): array
    {
        if ($timeline->hasEnded()) {
            return [];
        }
        $reminders = [];
        foreach ($timeline->events as $order => $event) {
            if ($event->detail instanceof Note && $event->detail->step === NoteStep::Reminder) {
                $reminder = self::waiting($timeline, $order, $event, $event->detail);
                $reminders = $reminder === null ? $reminders : [...$reminders, $reminder];
            }
        }

        return $reminders;
    }

    private static function waiting(Timeline $timeline, int $order, Event $said, Note $note): ?Reminder
    {
        $done = self::lastDone($timeline, $order, $note);
        $text = $note->text ?? '';
        $isCooking = $timeline->stage()?->is(Cook::class) === true;
        if ($note->everyMinutes !== null) {
            $from = max($said->at->epoch, $done ?? 0, self::cookFrom($timeline) ?? \PHP_INT_MAX);

            return $isCooking
                ? new Reminder($text, Instant::ofEpoch($from)->plus(Span::ofMinutes($note->everyMinutes)), null)
                : null;
        }
        if ($done !== null) {
            return null;
        }
        if ($note->inMinutes !== null) {
            $from = max($said->at->epoch, self::cookFrom($timeline) ?? \PHP_INT_MAX);

            return new Reminder(
                $text,
                $from === \PHP_INT_MAX ? null : Instant::ofEpoch($from)->plus(Span::ofMinutes($note->inMinutes)),
                null,
            );
        }
        foreach ($timeline->readings->all() as $reading) {
            if ($note->temp !== null && $reading->order > $order && !$note->temp->isHotterThan($reading->temp)) {
                return new Reminder($text, $reading->instant(), $note->temp);
            }
        }

        return new Reminder($text, null, $note->temp);
    }

    /** Seconds: when it was done last since it was written down. */
    private static function lastDone(Timeline $timeline, int $order, Note $note): ?int
    {
        $done = null;
        foreach ($timeline->events as $place => $event) {
            $isSaid =
                $event->detail instanceof Note
                && $event->detail->step === NoteStep::ReminderDone
                && $event->detail->text === $note->text;
            if ($place > $order && ($isSaid || $event->kind()->name() === $note->does)) {
                $done = $event->at->epoch;
            }
        }

        return $done;
    }

    /** Seconds: when it went on the heat the last time. */
    private static function cookFrom(Timeline $timeline): ?int
    {
        $from = null;
        foreach ($timeline->stages as $index => $stage) {
            $isFirst = !isset($timeline->stages[$index - 1]) || !$timeline->stages[$index - 1]->is(Cook::class);
            $from = $stage->is(Cook::class) && $isFirst ? $stage->from->epoch : $from;
        }

        return $from;
    }
}
