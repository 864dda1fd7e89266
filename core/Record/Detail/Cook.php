<?php

declare(strict_types=1);

namespace Verjuicer\Core\Record\Detail;

use Verjuicer\Core\Food\Oven;
use Verjuicer\Core\Json\Fields;
use Verjuicer\Core\Measure\Temperature;

/** Onto the heat: the oven and its set point, which open or close the low rows of the roast table. */
final readonly class Cook implements Detail
{
    public function __construct(public ?Oven $oven, public ?Temperature $set)
    {
    }

    public static function read(Fields $fields): self
    {
        return new self($fields->choice('oven', Oven::class), $fields->temperature('set'));
    }

    public function members(): array
    {
        return ['oven' => $this->oven?->value, 'set' => $this->set];
    }
}
