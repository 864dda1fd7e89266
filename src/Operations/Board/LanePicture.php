<?php

declare(strict_types=1);

namespace Verjuicer\App\Operations\Board;

use Verjuicer\App\Operations\Plan\PlannedMoments;
use Verjuicer\App\Platform\Picture\TemperatureAxis;
use Verjuicer\App\Platform\Picture\TimeAxis;
use Verjuicer\App\Platform\Wording\MeasureFormatter;
use Verjuicer\App\Projection\Lane\Lane;
use Verjuicer\Core\Assess\Finding\CountdownKind;
use Verjuicer\Core\Measure\Instant;
use Verjuicer\Core\Measure\Temperature;
use Verjuicer\Core\Measure\TemperatureUnit;
use Verjuicer\Core\Measure\TimeZone;

/** Where everything of one lane is drawn: bars of stages, the line of readings, posts of limits, rings of checks. */
final readonly class LanePicture
{
    public const WIDTH = 680;
    public const HEIGHT = 64;

    /**
     * @param list<array{stage: string, x: float, width: float}> $bars
     * @param string $line the readings as a path, a mark at each
     * @param array{x: float, width: float, label: string, label_x: float}|null $likely when it is likely to be done
     * @param list<array{look: string, x: float, label: string, label_x: float, label_width: float, is_right: bool,
     *     row: int, is_late: bool}> $posts
     * @param array{x: float, width: float, off: Instant}|null $planned on the heat as it was planned
     */
    private function __construct(
        public array $bars,
        public string $line,
        public float $hotY,
        public float $coldY,
        public array $posts,
        public ?array $likely,
        public ?array $planned,
    ) {
    }

    /** What lies under the readings of every lane with the same limits: drawn once, by this name. */
    public function ground(): string
    {
        return 'ground-'.$this->hotY.'-'.$this->coldY;
    }

    public static function of(
        Lane $lane,
        TimeAxis $axis,
        TemperatureUnit $unit,
        TimeZone $zone,
        MeasureFormatter $figures,
        Instant $now,
        ?PlannedMoments $planned = null,
    ): self {
        $scale = new TemperatureAxis(Temperature::fahrenheit('20'), Temperature::fahrenheit('220'), 14, 46);
        $bars = [];
        foreach ($lane->stages as $stage) {
            $end = $stage->to ?? $now;
            if ($end->epoch > $axis->from->epoch && !$stage->isEnd) {
                $x = $axis->clampedX($stage->from);
                $bars[] = [
                    'stage' => $stage->name,
                    'x' => $x,
                    'width' => max(0.5, round($axis->clampedX($end) - $x, 1)),
                ];
            }
        }
        $read = [];
        foreach ($lane->line as $point) {
            if ($point->at->epoch >= $axis->from->epoch) {
                $read[] = $axis->x($point->at).' '.$scale->y($point->temp);
            }
        }

        return new self(
            $bars,
            // One point alone is a line of no length: its marks are drawn.
            $read === [] ? '' : 'M'.implode('L', $read).(\count($read) === 1 ? 'h0' : ''),
            $scale->y($lane->hot->printedIn($unit)),
            $scale->y($lane->cold->printedIn($unit)),
            self::posts($lane, $axis, $unit, $zone, $figures, $now),
            self::likely($lane, $axis, $now),
            $planned === null ? null : self::planned($planned, $axis),
        );
    }

    /** @return array{x: float, width: float, off: Instant}|null null where it lies off the board */
    private static function planned(PlannedMoments $planned, TimeAxis $axis): ?array
    {
        [$from, $to] = [$axis->clampedX($planned->load), $axis->clampedX($planned->likely)];

        return $to <= $from ? null : ['x' => $from, 'width' => round($to - $from, 1), 'off' => $planned->likely];
    }

    /**
     * @return array{x: float, width: float, label: string, label_x: float}|null when it is likely to be done: a span on
     *     the road, never a point
     */
    private static function likely(Lane $lane, TimeAxis $axis, Instant $now): ?array
    {
        if (
            $lane->outlook === null
            || $lane->target === null
            || $lane->outlook->earliest->isAfter($axis->to)
            || $now->isAfter($lane->outlook->latest)
        ) {
            return null;
        }
        $x = max($axis->x($now), $axis->clampedX($lane->outlook->earliest));
        $label = $lane->target->number().'°';

        return [
            'x' => $x,
            'width' => max(3.0, round($axis->clampedX($lane->outlook->latest) - $x, 1)),
            'label' => $label,
            'label_x' => min($x + 6, self::WIDTH - 8.0 * mb_strlen($label)),
        ];
    }

    /**
     * @return list<array{look: string, x: float, label: string, label_x: float, label_width: float, is_right: bool,
     *     row: int, is_late: bool}>
     */
    private static function posts(
        Lane $lane,
        TimeAxis $axis,
        TemperatureUnit $unit,
        TimeZone $zone,
        MeasureFormatter $figures,
        Instant $now,
    ): array {
        $posts = [];
        $rowEnds = [];
        foreach ($lane->dues as $due) {
            if (!$axis->shows($due->deadline)) {
                continue;
            }
            $limit = $due->kind === CountdownKind::Check ? null : $due->towards;
            $label =
                ($limit === null ? '' : $limit->printedIn($unit)->number().'° ')
                .$figures->time($due->deadline, $zone);
            $x = $axis->x($due->deadline);
            $width = 12 + 6.4 * mb_strlen($label);
            $isRight = $x + $width > self::WIDTH;
            $labelX = $isRight ? $x - $width : $x;
            $row = isset($rowEnds[0]) && $rowEnds[0] > $labelX ? 1 : 0;
            $rowEnds[$row] = $labelX + $width + 4;
            $posts[] = [
                'look' => $due->kind === CountdownKind::Limit && $due->rule === 'cool.total'
 ? 'ice'
 : $due->kind->value,
                'x' => $x,
                'label' => $label,
                'label_x' => round($labelX, 1),
                'label_width' => round($width, 1),
                'is_right' => $isRight,
                'row' => $row,
                'is_late' => $now->isAfter($due->deadline),
            ];
        }

        return $posts;
    }
}
