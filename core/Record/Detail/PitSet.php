<?php

declare(strict_types=1);

namespace Verjuicer\Core\Record\Detail;

use Verjuicer\Core\Json\Fields;
use Verjuicer\Core\Measure\Temperature;

/** A new set point of the pit. */
final readonly class PitSet implements Detail
{
    public function __construct(public Temperature $set)
    {
    }

    public static function read(Fields $fields): ?self
    {
        $set = $fields->requiredTemperature('set');

        return $set === null ? null : new self($set);
    }

    public function members(): array
    {
        return ['set' => $this->set];
    }
}
