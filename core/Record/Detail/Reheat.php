<?php

declare(strict_types=1);

namespace Verjuicer\Core\Record\Detail;

use Verjuicer\Core\Food\ReheatPurpose;
use Verjuicer\Core\Json\Fields;

/** Heating cooked food again, to be held hot or to be served at once. */
final readonly class Reheat implements Detail
{
    public function __construct(public ReheatPurpose $for)
    {
    }

    public static function read(Fields $fields): ?self
    {
        $for = $fields->requiredChoice('for', ReheatPurpose::class);

        return $for === null ? null : new self($for);
    }

    public function members(): array
    {
        return ['for' => $this->for->value];
    }
}
