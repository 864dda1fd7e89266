<?php

declare(strict_types=1);

namespace Verjuicer\Core\Record\Detail;

use Verjuicer\Core\Json\Fields;

/** A corrective action: the finding it answers and what was done. */
final readonly class Action implements Detail
{
    public function __construct(public ?string $finding, public ?string $text)
    {
    }

    public static function read(Fields $fields): self
    {
        return new self($fields->text('finding'), $fields->text('text'));
    }

    public function members(): array
    {
        return ['finding' => $this->finding, 'text' => $this->text];
    }
}
