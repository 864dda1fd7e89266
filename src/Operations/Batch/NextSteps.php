<?php

declare(strict_types=1);

namespace Verjuicer\App\Operations\Batch;

use Verjuicer\Core\Event\EventKinds;
use Verjuicer\Core\Event\Kind;
use Verjuicer\Core\Event\QuickAction;

/** What makes sense next, by the stage a batch is in: what the kinds of events say of themselves. */
final readonly class NextSteps
{
    /** @return list<StepOffer> the likeliest first */
    public static function after(string $stage): array
    {
        $offered = array_filter(
            EventKinds::all(),
            static fn (Kind $kind): bool => isset($kind->declared->offered[$stage]),
        );
        usort(
            $offered,
            static fn (Kind $one, Kind $other): int => $one->declared->offered[$stage]
                <=> $other->declared->offered[$stage],
        );

        return array_map(static fn (Kind $kind): StepOffer => StepOffer::of($kind, $stage), $offered);
    }

    /** @return list<string> what takes one tap and nothing else: "wrap/with/paper" */
    public static function taps(string $stage): array
    {
        $taps = [];
        foreach (EventKinds::all() as $kind) {
            foreach ($kind->declared->taps as $tap) {
                if (\in_array($stage, $tap->in, true)) {
                    $taps[self::key($kind, $tap)] = $tap->place;
                }
            }
        }
        asort($taps);

        return array_keys($taps);
    }

    /** @return list<string> of every stage */
    public static function allTaps(): array
    {
        $taps = [];
        foreach (EventKinds::all() as $kind) {
            foreach ($kind->declared->taps as $tap) {
                $taps[] = self::key($kind, $tap);
            }
        }

        return $taps;
    }

    /** @return array{Kind, QuickAction}|null what a tap is */
    public static function tapped(string $key): ?array
    {
        foreach (EventKinds::all() as $kind) {
            foreach ($kind->declared->taps as $tap) {
                if (self::key($kind, $tap) === $key) {
                    return [$kind, $tap];
                }
            }
        }

        return null;
    }

    private static function key(Kind $kind, QuickAction $tap): string
    {
        $key = $kind->name();
        foreach ($tap->sets as $field => $value) {
            $key .= '/'.$field.'/'.$value;
        }

        return $key;
    }
}
