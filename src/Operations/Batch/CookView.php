<?php

declare(strict_types=1);

namespace Verjuicer\App\Operations\Batch;

use Verjuicer\Core\Assess\Assessment;
use Verjuicer\Core\Assess\Evidence\CookOutcome;
use Verjuicer\Core\Assess\Evidence\CookWindow;
use Verjuicer\Core\Assess\Evidence\TrackReading;
use Verjuicer\Core\Assess\Finding\Finding;
use Verjuicer\Core\Event\EventKinds;
use Verjuicer\Core\Event\Kinds\Cook;
use Verjuicer\Core\Event\Kinds\Inject;
use Verjuicer\Core\Event\Kinds\Sauce;
use Verjuicer\Core\Event\Kinds\Season;
use Verjuicer\Core\Event\Kinds\Spritz;
use Verjuicer\Core\Event\Kinds\Wrap;
use Verjuicer\Core\Food\CookWay;

/** The last cook piece by piece: its coldest spot, and what the record shows of it against what the law asks. */
final readonly class CookView
{
    /**
     * @param list<array{piece: int, coldest: TrackReading|null, finding: Finding|null}> $pieces every piece, those not
     *     read among them
     */
    private function __construct(public CookWindow $window, public array $pieces)
    {
    }

    public static function of(Assessment $assessment): ?self
    {
        $cook = $assessment->cooks[\count($assessment->cooks) - 1] ?? null;
        if ($cook === null) {
            return null;
        }
        $pieces = [];
        $last = self::lastReadings($assessment, $cook);
        for ($piece = 1; $piece <= max(1, $assessment->record->product->pieces); ++$piece) {
            if (!$assessment->record->product->holds($piece)) {
                continue;
            }
            $coldest = null;
            foreach ($last[$piece] ?? [] as $reading) {
                $coldest = $coldest === null || $coldest->temp->isHotterThan($reading->temp) ? $reading : $coldest;
            }
            $pieces[] = ['piece' => $piece, 'coldest' => $coldest, 'finding' => self::worst($cook, $piece)];
        }

        return new self($cook->window, $pieces);
    }

    /** @return list<string> all that recipes brought in, each once */
    public static function allergens(Assessment $assessment): array
    {
        $allergens = [];
        foreach ($assessment->timeline->events as $event) {
            $brought = EventKinds::of($event->detail::class)->values($event->detail)['allergens'] ?? null;
            $allergens = [...$allergens, ...array_filter(\is_array($brought) ? $brought : [], \is_string(...))];
        }

        return array_values(array_unique($allergens));
    }

    /** Whether something went on or in of which nobody said what it contains. */
    public static function areAllergensUnknown(Assessment $assessment): bool
    {
        foreach ($assessment->timeline->events as $event) {
            $isMore = match (true) {
                $event->detail instanceof Cook => $event->detail->way === CookWay::Braise,
                // Foil, paper, a boat, a pan is nothing to eat; what else is named may be.
                $event->detail instanceof Wrap => $event->detail->with !== null
                    && !\in_array($event->detail->with, $event->kind()->fields['with']->says->usual, true),
                default => $event->is(Season::class, Sauce::class, Spritz::class, Inject::class),
            };
            $said = $isMore ? $event->kind()->values($event->detail) : [];
            if ($isMore && ($said['recipe'] ?? null) === null && ($said['allergens'] ?? []) === []) {
                return true;
            }
        }

        return false;
    }

    /** @return array<int, array<string, TrackReading>> the last reading of each spot in the cook, by piece */
    private static function lastReadings(Assessment $assessment, CookOutcome $cook): array
    {
        $last = [];
        $stretch = $cook->window->stretch;
        foreach ($assessment->timeline->readings->all() as $reading) {
            if ($reading->order >= $stretch->order && $reading->order < $stretch->endOrder) {
                $last[$reading->piece][$reading->spot] = $reading;
            }
        }

        return $last;
    }

    private static function worst(CookOutcome $cook, int $piece): ?Finding
    {
        $worst = null;
        foreach ($cook->findings as $finding) {
            if (
                $finding->track === null
                || (int) explode('/', $finding->track)[0] !== $piece
                || $finding->verdict === null
            ) {
                continue;
            }
            if ($worst?->verdict === null || $finding->verdict->isWorseThan($worst->verdict)) {
                $worst = $finding;
            }
        }

        return $worst;
    }
}
