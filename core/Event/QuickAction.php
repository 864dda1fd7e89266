<?php

declare(strict_types=1);

namespace Verjuicer\Core\Event;

/** An entry recorded by one tap. Its label is a translation: `tap.`, the kind and the values it sets. */
final readonly class QuickAction
{
    /**
     * @param list<string> $in the stages it makes sense in; '' is before the first
     * @param int $place among the taps of a stage
     * @param array<string, string> $sets fields it says, in the words of the open format
     */
    public function __construct(public array $in, public int $place, public array $sets = [])
    {
    }
}
