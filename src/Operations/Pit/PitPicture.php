<?php

declare(strict_types=1);

namespace Verjuicer\App\Operations\Pit;

use Verjuicer\App\Platform\Picture\TemperatureAxis;
use Verjuicer\App\Platform\Picture\TimeAxis;
use Verjuicer\App\Platform\Wording\MeasureFormatter;
use Verjuicer\App\Site\Site\Site;
use Verjuicer\Core\Food\PitSign;
use Verjuicer\Core\Measure\Instant;
use Verjuicer\Core\Measure\Span;
use Verjuicer\Core\Measure\Temperature;
use Verjuicer\Core\Measure\TemperatureUnit;
use Verjuicer\Core\Pit\PitExcursion;
use Verjuicer\Core\Pit\PitLog;

/**
 * A pit over the last half day: its set point as steps, readings as marks, what was done as signs below, strays as
 * bars.
 */
final readonly class PitPicture
{
    public const TOP = 16;
    public const BOTTOM = 220;
    public const LEFT = 52;
    public const RIGHT = 852;

    private const HOURS = 12;

    /**
     * @param list<array{y: float, label: string}> $levels
     * @param list<array{x: float, label: string, is_midnight: bool}> $hours
     * @param list<array{x: float, y: float, at: Instant, temp: Temperature}> $readings
     * @param list<array{x: float, sign: string, at: Instant}> $signs
     * @param list<array{x: float, width: float, is_hot: bool}> $strays
     */
    private function __construct(
        public array $levels,
        public array $hours,
        public string $set,
        public string $line,
        public array $readings,
        public array $signs,
        public array $strays,
    ) {
    }

    /** @param list<PitExcursion> $strays */
    public static function of(PitLog $log, array $strays, Site $site, Instant $now, MeasureFormatter $figures): self
    {
        $time = new TimeAxis($now->plus(Span::ofHours(-self::HOURS)), $now, self::LEFT, self::RIGHT);
        $scale = new TemperatureAxis(
            Temperature::fahrenheit('100'),
            Temperature::fahrenheit('450'),
            self::TOP,
            self::BOTTOM,
        );
        $set = $log->setAt($time->from);
        $path = $set === null ? '' : 'M'.self::LEFT.' '.$scale->y($set);
        $readings = $signs = [];
        foreach ($log->entries as $entry) {
            if (!$time->shows($entry->at)) {
                continue;
            }
            $x = $time->x($entry->at);
            if ($entry->sign === PitSign::Set && $entry->temp !== null) {
                $path .= ($path === '' ? 'M'.$x.' ' : 'H'.$x.'V').$scale->y($entry->temp);
            } elseif ($entry->sign === PitSign::Out && $path !== '') {
                $path .= 'H'.$x.'M'.$x.' '.self::BOTTOM;
            }
            if ($entry->sign === PitSign::Reading && $entry->temp !== null) {
                $readings[] = ['x' => $x, 'y' => $scale->y($entry->temp), 'at' => $entry->at, 'temp' => $entry->temp];
            } else {
                $signs[] = ['x' => $x, 'sign' => $entry->sign->value, 'at' => $entry->at];
            }
        }
        $isSet = $log->setAt($now) !== null;

        return new self(
            array_map(
                static fn (Temperature $level): array => ['y' => $scale->y($level), 'label' => $level->number().'°'],
                self::levels($site->unit),
            ),
            $time->hours($site->zone(), $figures),
            $path === '' || !$isSet ? $path : $path.'H'.self::RIGHT,
            implode(' ', array_map(static fn (array $mark): string => $mark['x'].','.$mark['y'], $readings)),
            $readings,
            $signs,
            array_values(
                array_filter(
                    array_map(static function (PitExcursion $stray) use ($time): array {
                        $x = $time->clampedX($stray->from);

                        return [
                            'x' => $x,
                            'width' => round($time->clampedX($stray->to) - $x, 1),
                            'is_hot' => $stray->isHot,
                        ];
                    }, $strays),
                    static fn (array $bar): bool => $bar['width'] > 0,
                ),
            ),
        );
    }

    /** @return list<Temperature> */
    private static function levels(TemperatureUnit $unit): array
    {
        return $unit === TemperatureUnit::Fahrenheit
            ? array_map(Temperature::fahrenheit(...), ['160', '225', '275', '340', '400'])
            : array_map(Temperature::celsius(...), ['60', '90', '120', '170', '200']);
    }
}
