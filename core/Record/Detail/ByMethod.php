<?php

declare(strict_types=1);

namespace Verjuicer\Core\Record\Detail;

use Verjuicer\Core\Json\Fields;

/** A rest, a cooling or a packing by some method. */
final readonly class ByMethod implements Detail
{
    public function __construct(public ?string $method)
    {
    }

    public static function read(Fields $fields): self
    {
        return new self($fields->text('method'));
    }

    public function members(): array
    {
        return ['method' => $this->method];
    }
}
