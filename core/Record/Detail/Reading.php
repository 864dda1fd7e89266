<?php

declare(strict_types=1);

namespace Verjuicer\Core\Record\Detail;

use Verjuicer\Core\Json\Fields;
use Verjuicer\Core\Measure\Temperature;

/** The temperature of the meat at one spot of one piece. */
final readonly class Reading implements Detail
{
    public function __construct(public Temperature $temp, public int $piece, public string $spot, public ?string $thermometer)
    {
    }

    public static function read(Fields $fields): ?self
    {
        $temp = $fields->requiredTemperature('temp');
        $piece = $fields->count('piece', 1);
        $spot = $fields->text('spot') ?? 'core';
        $thermometer = $fields->text('thermometer');

        return $temp === null ? null : new self($temp, $piece, $spot, $thermometer);
    }

    public function members(): array
    {
        return ['temp' => $this->temp, 'piece' => $this->piece, 'spot' => $this->spot, 'thermometer' => $this->thermometer];
    }
}
