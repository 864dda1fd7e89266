<?php

declare(strict_types=1);

namespace Verjuicer\App\Operations\Probe;

use Verjuicer\App\Platform\Picture\TemperatureAxis;
use Verjuicer\App\Platform\Picture\TimeAxis;
use Verjuicer\App\Platform\Wording\MeasureFormatter;
use Verjuicer\App\Site\Site\Site;
use Verjuicer\Core\Measure\Instant;
use Verjuicer\Core\Measure\Span;
use Verjuicer\Core\Measure\Temperature;
use Verjuicer\Core\Series\ChannelWatch;
use Verjuicer\Core\Series\Sample;

/** What a channel said in the last hours: every sample lies in its band, no two points closer than a pixel. */
final readonly class SeriesPicture
{
    public const WIDTH = 640;
    public const HEIGHT = 150;
    private const LEFT = 52;
    private const RIGHT = 632;
    private const TOP = 12;
    private const BOTTOM = 124;
    private const HOURS = 6;
    /** Seconds that a pixel and a half stand for. */
    private const STEP = 60;
    private const LEAST_TENTHS = 300;
    /** Closer than that one of two figures would stand on the other. */
    private const APART_TENTHS = 50;

    /**
     * @param list<string> $lines the points of each piece of the line, cut where nothing came
     * @param list<array{x: float, label: string}> $hours
     * @param list<array{y: float, label: string}> $levels
     */
    private function __construct(public array $lines, public array $hours, public array $levels)
    {
    }

    public static function from(Instant $now): Instant
    {
        return $now->plus(Span::ofHours(-self::HOURS));
    }

    /** @param iterable<Sample> $samples by time */
    public static function of(iterable $samples, Site $site, Instant $now, MeasureFormatter $figures): ?self
    {
        $points = [];
        $lowest = $highest = null;
        foreach ($samples as $sample) {
            if ($sample->temp === null) {
                continue;
            }
            $step = intdiv($sample->at, self::STEP);
            [$low, $high] = $points[$step] ?? [$sample->temp, $sample->temp];
            $points[$step] = [
                $low->isHotterThan($sample->temp) ? $sample->temp : $low,
                $sample->temp->isHotterThan($high) ? $sample->temp : $high,
            ];
            $lowest = $lowest === null || $lowest->isHotterThan($sample->temp) ? $sample->temp : $lowest;
            $highest = $highest === null || $sample->temp->isHotterThan($highest) ? $sample->temp : $highest;
        }
        if ($lowest === null || $highest === null) {
            return null;
        }
        $time = new TimeAxis(self::from($now), $now, self::LEFT, self::RIGHT);
        // What hardly moves is drawn so.
        $room = max(50, intdiv(self::LEAST_TENTHS - abs($highest->tenths - $lowest->tenths), 2));
        $bottom = self::beside($lowest, -$room);
        $top = self::beside($highest, $room);
        $scale = new TemperatureAxis($bottom, $top, self::TOP, self::BOTTOM);
        $lines = [];
        $before = null;
        foreach ($points as $step => [$low, $high]) {
            $at = Instant::ofEpoch($step * self::STEP);
            if ($time->shows($at)) {
                if ($before === null || ($step - $before) * self::STEP > ChannelWatch::SILENT) {
                    $lines[] = '';
                }
                $x = $time->x($at);
                $lines[\count($lines) - 1] .= " $x,{$scale->y($low)} $x,{$scale->y($high)}";
                $before = $step;
            }
        }

        return new self(
            array_map(trim(...), array_values($lines)),
            array_map(
                static fn (array $hour): array => ['x' => $hour['x'], 'label' => $hour['label']],
                $time->hours($site->zone(), $figures),
            ),
            array_map(
                static fn (Temperature $one): array => [
                    'y' => $scale->y($one),
                    'label' => $figures->temperature($one),
                ],
                $highest->tenths - $lowest->tenths < self::APART_TENTHS ? [$highest] : [$lowest, $highest],
            ),
        );
    }

    private static function beside(Temperature $one, int $tenths): Temperature
    {
        return Temperature::ofTenths(max(-400, min($one->unit->greatestTenths(), $one->tenths + $tenths)), $one->unit);
    }
}
