<?php

declare(strict_types=1);

namespace Verjuicer\Core\Record\Detail;

use Verjuicer\Core\Json\Fields;
use Verjuicer\Core\Measure\Temperature;

/** Taken in at the door. */
final readonly class Received implements Detail
{
    public function __construct(public ?Temperature $temp, public bool $frozen, public ?string $supplier, public ?string $lot)
    {
    }

    public static function read(Fields $fields): self
    {
        return new self($fields->temperature('temp'), $fields->flag('frozen'), $fields->text('supplier'), $fields->text('lot'));
    }

    public function members(): array
    {
        return ['temp' => $this->temp, 'frozen' => $this->frozen, 'supplier' => $this->supplier, 'lot' => $this->lot];
    }
}
