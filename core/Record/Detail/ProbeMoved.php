<?php

declare(strict_types=1);

namespace Verjuicer\Core\Record\Detail;

use Verjuicer\Core\Json\Fields;

/** The probe left this spot: its readings may not have been of the coldest place. */
final readonly class ProbeMoved implements Detail
{
    public function __construct(public int $piece, public string $spot)
    {
    }

    public static function read(Fields $fields): self
    {
        return new self($fields->count('piece', 1), $fields->text('spot') ?? 'core');
    }

    public function members(): array
    {
        return ['piece' => $this->piece, 'spot' => $this->spot];
    }
}
