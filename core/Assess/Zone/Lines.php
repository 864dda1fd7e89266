<?php

declare(strict_types=1);

namespace Verjuicer\Core\Assess\Zone;

use Verjuicer\Core\Assess\Evidence\CaseFile;
use Verjuicer\Core\Assess\Evidence\Reading;
use Verjuicer\Core\Assess\Evidence\Trace;

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
        $fresh = $case->readings;
        if ($this->ofTracks !== []) {
            $fresh = new Trace(
                array_values(
                    array_filter($fresh->readings, static fn (Reading $one): bool => $one->leftOut === null),
                ),
            );
        }
        $ofTrack = $fresh->byTrack();
        $isNew = array_diff_key($ofTrack, $this->ofTracks);
        // What was read of a piece is asked for up to where its last spot was first read.
        $until = $isGoneOnWith ? \PHP_INT_MAX : -1;
        foreach ($isNew as $trace) {
            $until = max($until, $trace->readings[0]->order);
        }
        $ofPiece = $first = [];
        foreach ($fresh->readings as $reading) {
            if ($reading->order > $until) {
                break;
            }
            $track = $reading->track;
            if (isset($isNew[$track]) && !isset($first[$track])) {
                $first[$track] = $ofPiece[$reading->piece] ?? [];
            }
            $ofPiece[$reading->piece][] = $reading;
        }
        $ofTracks = $this->ofTracks;
        foreach ($ofTrack as $track => $trace) {
            $readings = $trace->readings;
            \assert($readings !== [], 'a track is one that was read');
            $before = $ofTracks[$track] ?? $this->ofPieces[$readings[0]->piece] ?? null;
            $all = ($first[$track] ?? []) === [] ? $readings : [...$first[$track], ...$readings];
            $ofTracks[$track] = Line::through($before, $all, $case, $touch);
        }
        $ofPieces = $this->ofPieces;
        foreach ($isGoneOnWith ? $ofPiece : [] as $piece => $readings) {
            $ofPieces[$piece] = Line::through($ofPieces[$piece] ?? null, $readings, $case, $touch);
        }

        return new self($ofPieces, $ofTracks);
    }
}
