<?php

declare(strict_types=1);

namespace Verjuicer\Core\Assess\Zone;

use Verjuicer\Core\Assess\Evidence\CaseFile;

/**
 * The lines through the readings of a batch, one a track: those of a piece before a spot was first read, whatever their
 * spot, then that spot's own. Readings that an abridged record kept are in them already.
 */
final readonly class Lines
{
    /**
     * @param array<int, Line> $ofPieces through all readings of a piece
     * @param array<string, Line> $ofTracks
     */
    public function __construct(public array $ofPieces = [], public array $ofTracks = [])
    {
    }

    /**
     * Goes on through what was read since.
     *
     * @param bool $isGoneOnWith whether it goes on from there, so that spots may be read that were not yet
     */
    public function through(CaseFile $case, StageTouch $touch, bool $isGoneOnWith = false): self
    {
        $ofPiece = $ofTrack = [];
        $isNew = [];
        foreach ($case->readings->readings as $reading) {
            if ($reading->leftOut !== null) {
                continue;
            }
            $track = $reading->track;
            if (!isset($ofTrack[$track]) && !isset($this->ofTracks[$track])) {
                $isNew[$track] = $ofPiece[$reading->piece] ?? [];
            }
            $ofPiece[$reading->piece][] = $reading;
            $ofTrack[$track][] = $reading;
        }
        $ofTracks = $this->ofTracks;
        foreach ($ofTrack as $track => $readings) {
            $before = $ofTracks[$track] ?? $this->ofPieces[$readings[0]->piece] ?? null;
            $ofTracks[$track] = Line::through($before, [...$isNew[$track] ?? [], ...$readings], $case, $touch);
        }
        $ofPieces = $this->ofPieces;
        foreach ($isGoneOnWith ? $ofPiece : [] as $piece => $readings) {
            $ofPieces[$piece] = Line::through($ofPieces[$piece] ?? null, $readings, $case, $touch);
        }

        return new self($ofPieces, $ofTracks);
    }
}
