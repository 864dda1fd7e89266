<?php

declare(strict_types=1);

namespace Verjuicer\Core\Assess\Zone;

use Verjuicer\Core\Assess\Evidence\CaseFile;
use Verjuicer\Core\Assess\Evidence\Trace;

/**
 * The lines through the readings of a batch, one per track: readings of the piece before a spot was first read, then
 * the readings of that spot. Readings kept by an abridged record are included.
 */
final readonly class ExposureLines
{
    /**
     * @param array<int, ExposureLine> $ofPieces through all readings of a piece
     * @param array<string, ExposureLine> $ofTracks
     */
    public function __construct(public array $ofPieces = [], public array $ofTracks = [])
    {
    }

    /**
     * Continues with later readings.
     *
     * @param bool $isGoneOnWith whether it goes on from there, so that spots may be read that were not yet
     */
    public function through(CaseFile $case, StageTouch $touch, bool $isGoneOnWith = false): self
    {
        $fresh = $this->ofTracks === [] ? $case->readings : $case->readings->fresh();
        $byPiece = [];
        foreach ($fresh->byTrack() as $track => $trace) {
            $byPiece[$trace->at(0)->piece][$track] = $trace;
        }
        $ofTracks = $this->ofTracks;
        foreach ($fresh->byTrack() as $track => $trace) {
            $line = $ofTracks[$track] ?? null;
            $parts = [$trace];
            if ($line === null) {
                // Readings of the piece before this spot was first read.
                $piece = $trace->at(0)->piece;
                $line = $this->ofPieces[$piece] ?? null;
                $earlier = self::together($byPiece[$piece], $trace->orders[0]);
                $parts = $earlier === null ? $parts : [$earlier, $trace];
            }
            $ofTracks[$track] = ExposureLine::through($line, $parts, $case, $touch);
        }
        $ofPieces = $this->ofPieces;
        foreach ($isGoneOnWith ? $byPiece : [] as $piece => $traces) {
            $all = self::together($traces, \PHP_INT_MAX);
            \assert($all !== null, 'a track is one that was read');
            $ofPieces[$piece] = ExposureLine::through($ofPieces[$piece] ?? null, [$all], $case, $touch);
        }

        return new self($ofPieces, $ofTracks);
    }

    /**
     * Readings of a piece before this place; null for none.
     *
     * @param non-empty-array<string, Trace> $traces of its spots
     */
    private static function together(array $traces, int $order): ?Trace
    {
        $parts = [];
        foreach ($traces as $trace) {
            if ($trace->orders[0] < $order) {
                $parts[] = $trace->slice(0, $trace->countBefore($order));
            }
        }

        return match (\count($parts)) {
            0 => null,
            1 => $parts[0],
            default => Trace::merged(...$parts),
        };
    }
}
