<?php

declare(strict_types=1);

namespace Verjuicer\Core\Record\Detail;

use Verjuicer\Core\Json\Fields;

/** A remark; it decides nothing. */
final readonly class Note implements Detail
{
    public function __construct(public ?string $text)
    {
    }

    public static function read(Fields $fields): self
    {
        return new self($fields->text('text'));
    }

    public function members(): array
    {
        return ['text' => $this->text];
    }
}
