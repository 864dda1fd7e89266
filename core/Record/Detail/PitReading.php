<?php

declare(strict_types=1);

namespace Verjuicer\Core\Record\Detail;

use Verjuicer\Core\Json\Fields;
use Verjuicer\Core\Measure\Temperature;

/** The temperature of the pit, not of the meat. */
final readonly class PitReading implements Detail
{
    public function __construct(public Temperature $temp)
    {
    }

    public static function read(Fields $fields): ?self
    {
        $temp = $fields->requiredTemperature('temp');

        return $temp === null ? null : new self($temp);
    }

    public function members(): array
    {
        return ['temp' => $this->temp];
    }
}
