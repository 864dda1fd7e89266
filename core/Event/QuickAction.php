<?php

declare(strict_types=1);

namespace Verjuicer\Core\Event;

/** What one tap records. Its label is in the translations, under `tap.`, the kind and what it sets. */
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
