<?php

declare(strict_types=1);

namespace Verjuicer\App\Operations\Entry;

use Verjuicer\Core\Event\Kinds\Note;
use Verjuicer\Core\Food\NoteStep;
use Verjuicer\Core\Measure\MalformedTemperature;
use Verjuicer\Core\Measure\Temperature;
use Verjuicer\Core\Measure\TemperatureUnit;

/**
 * Reads what somebody wants to be reminded of: "spritz every 30", "wrap at 165", "sauce in 120", "wrap when the colour
 * is set".
 */
final readonly class ReminderLine
{
    private const MOST_MINUTES = 2880;

    public function __construct(private LineWords $words)
    {
    }

    /** @throws EntryProblem if it names nothing, or a time or temperature that cannot be */
    public function parse(string $line, TemperatureUnit $unit): Note
    {
        $words = explode(' ', trim((string) preg_replace('/\s+/u', ' ', $line)));
        $words = $words === [''] ? [] : $words;
        $last = $words[\count($words) - 1] ?? '';
        $before = $words[\count($words) - 2] ?? '';
        $minutes = preg_match('/^(\d{1,4})(?:min)?$/', $last, $part) === 1 ? (int) $part[1] : null;
        $what = \array_slice($words, 0, -2);
        [$every, $in, $temp] = [null, null, null];
        if ($minutes !== null && $this->words->isSaid('every', $before)) {
            $every = $minutes;
        } elseif ($minutes !== null && $this->words->isSaid('in', $before)) {
            $in = $minutes;
        } elseif ($this->words->isSaid('at', $before) && preg_match('/^\d/', $last) === 1) {
            try {
                $temp = Temperature::parse($last, $unit);
            } catch (MalformedTemperature) {
                throw EntryProblem::notATemperature($last);
            }
        } else {
            $what = $words;
        }
        if (
            $what === []
            || ($minutes !== null && ($every ?? ($in ?? 1)) < 1)
            || max($every ?? 1, $in ?? 1) > self::MOST_MINUTES
        ) {
            throw EntryProblem::noReminder();
        }
        $kind = $this->words->verb($what[0])[0] ?? null;

        return new Note(
            implode(' ', $what),
            step: NoteStep::Reminder,
            temp: $temp,
            inMinutes: $in,
            everyMinutes: $every,
            does: $kind?->name(),
        );
    }
}
