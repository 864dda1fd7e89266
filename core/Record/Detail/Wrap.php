<?php

declare(strict_types=1);

namespace Verjuicer\Core\Record\Detail;

use Verjuicer\Core\Json\Fields;

/** Wrapped in foil, paper, a boat, a covered pan. */
final readonly class Wrap implements Detail
{
    public function __construct(public ?string $with)
    {
    }

    public static function read(Fields $fields): self
    {
        return new self($fields->text('with'));
    }

    public function members(): array
    {
        return ['with' => $this->with];
    }
}
