<?php

declare(strict_types=1);

namespace Verjuicer\Core\Series;

use Verjuicer\Core\Measure\Temperature;
use Verjuicer\Core\Measure\TemperatureUnit;

/** A sample of one channel of a sensor. */
final readonly class Sample
{
    /**
     * @param int $sequence its number on its channel, as the sensor counts
     * @param int $at seconds since 1970, UTC, by the server's clock
     * @param Temperature|null $temp null where the sensor says that nothing is plugged in
     */
    public function __construct(public int $sequence, public int $at, public ?Temperature $temp)
    {
    }

    /** @return array{int, int, int|null, string|null}|null as read() takes it */
    public static function written(?self $sample): ?array
    {
        return $sample === null
            ? null
            : [$sample->sequence, $sample->at, $sample->temp?->tenths, $sample->temp?->unit->value];
    }

    public static function read(mixed $written): ?self
    {
        if (!\is_array($written)) {
            return null;
        }
        [$sequence, $at, $tenths, $unit] = array_values($written) + [null, null, null, null];
        if (!\is_int($sequence) || !\is_int($at)) {
            return null;
        }

        return new self(
            $sequence,
            $at,
            \is_int($tenths) && \is_string($unit)
                ? Temperature::ofTenths($tenths, TemperatureUnit::from($unit))
                : null,
        );
    }
}
