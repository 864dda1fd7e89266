<?php

declare(strict_types=1);

namespace Verjuicer\Core\Record\Detail;

use Verjuicer\Core\Json\Fields;

/** A hold in the cold or in the heat. */
final readonly class Held implements Detail
{
    public function __construct(public ?string $place)
    {
    }

    public static function read(Fields $fields): self
    {
        return new self($fields->text('place'));
    }

    public function members(): array
    {
        return ['place' => $this->place];
    }
}
