<?php

declare(strict_types=1);

namespace Verjuicer\Core\Forecast;

use Verjuicer\Core\Assess\Assessment;
use Verjuicer\Core\Forecast\Belief\Belief;
use Verjuicer\Core\Forecast\Belief\Beliefs;
use Verjuicer\Core\Forecast\Belief\Odds;

/**
 * The forecast of each piece of a cook, with or without readings: by its thickness, and by the values of meat and pit
 * from the most-read piece. The slowest decides.
 */
final readonly class PieceOutlooks
{
    /**
     * @param list<TrackOutlook> $tracks each place that was read, and each piece that was not
     * @param Crossing|null $all when the slowest is done; null where one is not likely to be, or all are
     * @param string|null $slowest which is likely to be the last
     */
    private function __construct(
        public array $tracks,
        public ?Crossing $all,
        public ?string $slowest,
        public bool $isDone,
    ) {
    }

    public static function of(Assessment $assessment, CookOutlook $cook): self
    {
        $tracks = $cook->tracks;
        $product = $assessment->record->product;
        $numbers = $product->pieceNumbers ?? range(1, max(1, $product->pieces));
        $read = array_map(static fn (TrackOutlook $one): int => $one->piece(), $tracks);
        $unread = array_values(array_diff($numbers, $read));
        $odds = $cook->done();
        $all = $odds === null ? [] : [$odds];
        $isKnown = $cook->unestimated === [];
        $beliefs = Beliefs::of($assessment, \count($read) + 1);
        $made = [];
        foreach ($unread as $piece) {
            $target = $cook->targets[$piece] ?? $cook->target;
            // Pieces of which the same is known are done alike.
            $alike = $beliefs->known($piece).' '.$target->tenths;
            $made[$alike] ??= $beliefs->ofTrack("$piece/".Beliefs::MIDDLE)
                ?->crossing(Point::celsius($target), true, Belief::WITHIN);
            $crossing = $made[$alike] === null ? null : Crossing::of($made[$alike]);
            $tracks[] = new TrackOutlook("$piece/".Beliefs::MIDDLE, $target, false, $crossing);
            $isKnown = $isKnown && $crossing !== null;
        }
        $slowest = $isKnown ? Odds::slowest([...$all, ...array_values(array_filter($made))]) : null;

        return new self(
            $tracks,
            $slowest === null ? null : Crossing::of($slowest),
            self::last($tracks),
            $cook->isReached && $unread === [],
        );
    }

    /** @param list<TrackOutlook> $tracks */
    private static function last(array $tracks): ?string
    {
        $last = null;
        foreach ($tracks as $track) {
            $at = $track->isReached ? null : $track->crossing->likely->epoch ?? \PHP_INT_MAX;
            if ($at !== null && ($last === null || $at > $last[1])) {
                $last = [$track->track, $at];
            }
        }

        return $last[0] ?? null;
    }
}
