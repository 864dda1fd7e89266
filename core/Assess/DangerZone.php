<?php

declare(strict_types=1);

namespace Verjuicer\Core\Assess;

use Verjuicer\Core\Assess\Evidence\CaseFile;
use Verjuicer\Core\Assess\Zone\ClosedExposure;
use Verjuicer\Core\Assess\Zone\ExposureLines;
use Verjuicer\Core\Assess\Zone\StageTouch;
use Verjuicer\Core\Measure\Span;

/**
 * How long the meat was strictly between the cold and the hot limit: a figure, not a verdict.
 *
 * The estimate interpolates between successive readings of a line: the readings of a piece before a spot was first
 * read, then the readings of that spot. The lower bound counts time between two consecutive readings in the zone. The
 * upper bound also counts every gap in which the food may have been there, from leaving the cold to the end. A line
 * that begins warm and unread is only "at least".
 */
final readonly class DangerZone
{
    /**
     * @param Span $unread between leaving the cold and the first reading of the line the estimate is of, where it
     *     begins unread
     * @param array<string, int> $byStage seconds of the estimate in each kind of stage
     */
    private function __construct(
        public Span $estimate,
        public Span $least,
        public Span $greatest,
        public bool $beginsUnread,
        public Span $unread,
        public array $byStage,
    ) {
    }

    /** @param ExposureLines $lines through the omitted readings of an abridged record */
    public static function of(CaseFile $case, ExposureLines $lines = new ExposureLines()): self
    {
        $touch = new StageTouch($case->timeline);
        if ($case->readings->isEmpty()) {
            $warm = $touch->firstWarm();
            $unread = $warm === null ? 0 : max(0, $case->timeline->endOrAsOf()->epoch - $warm);

            return new self(
                Span::ofSeconds(0),
                Span::ofSeconds(0),
                Span::ofSeconds($unread),
                $warm !== null,
                Span::ofSeconds($unread),
                [],
            );
        }
        $least = $greatest = 0;
        /** @var ClosedExposure|null $told */
        $told = null;
        foreach ($lines->through($case, $touch)->ofTracks as $each) {
            $line = ClosedExposure::of($each, $case, $touch);
            $least = max($least, $line->least);
            $greatest = max($greatest, $line->greatest);
            if ($told === null || $line->isToldBefore($told)) {
                $told = $line;
            }
        }
        \assert($told !== null, 'a reading is on a line');

        return new self(
            Span::ofSeconds($told->estimateSeconds()),
            Span::ofSeconds($least),
            Span::ofSeconds($greatest),
            $told->beginsUnread,
            Span::ofSeconds($told->unread),
            $told->byStage(),
        );
    }
}
