<?php

declare(strict_types=1);

namespace Verjuicer\Core\Record\Detail;

use Verjuicer\Core\Food\TimePlan;
use Verjuicer\Core\Json\Fields;

/** Time as a public health control: service without heat, by the clock. */
final readonly class TimeControl implements Detail
{
    public function __construct(public TimePlan $plan)
    {
    }

    public static function read(Fields $fields): ?self
    {
        $plan = $fields->requiredChoice('plan', TimePlan::class);

        return $plan === null ? null : new self($plan);
    }

    public function members(): array
    {
        return ['plan' => $this->plan->value];
    }
}
