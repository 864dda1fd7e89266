<?php

declare(strict_types=1);

namespace Verjuicer\App\Operations\Batch;

/** The readings of one spot of one piece in the picture of a batch. */
final readonly class PictureTrack
{
    private const LABEL_GAP = 13.0;

    /**
     * @param int $shape of its marks, by the piece
     * @param int $dash of its line, by the spot
     * @param list<PictureMark> $marks in order of time
     * @param int $readings how many there are, those that no mark stands for among them
     * @param float $labelY where its name stands beside its end
     */
    private function __construct(
        public string $track,
        public int $shape,
        public int $dash,
        public array $marks,
        public int $readings,
        public float $labelY = 0.0,
    ) {
    }

    /** @param non-empty-list<PictureMark> $marks */
    public static function of(string $track, int $shape, int $dash, array $marks, int $readings): self
    {
        return new self($track, $shape, $dash, $marks, $readings, $marks[\count($marks) - 1]->y);
    }

    public function last(): PictureMark
    {
        return $this->marks[\count($this->marks) - 1];
    }

    /** The points of its line: what is in doubt is left out of it. */
    public function line(): string
    {
        $points = [];
        foreach ($this->marks as $mark) {
            if (!$mark->isSuspect) {
                $points[] = $mark->x.','.$mark->y;
            }
        }

        return implode(' ', $points);
    }

    /** "2 flat" */
    public function label(): string
    {
        return str_replace('/', ' ', $this->track);
    }

    /**
     * With their names at their ends, one under another where the ends lie close together.
     *
     * @param list<self> $tracks
     *
     * @return list<self> in the same order
     */
    public static function labelled(array $tracks): array
    {
        $places = array_keys($tracks);
        usort(
            $places,
            static fn (int $one, int $other): int => $tracks[$one]->last()->y <=> $tracks[$other]->last()->y,
        );
        $before = -\INF;
        foreach ($places as $place) {
            $track = $tracks[$place];
            $before = max($track->last()->y, $before + self::LABEL_GAP);
            $tracks[$place] = new self(
                $track->track,
                $track->shape,
                $track->dash,
                $track->marks,
                $track->readings,
                round($before, 1),
            );
        }

        return array_values($tracks);
    }
}
