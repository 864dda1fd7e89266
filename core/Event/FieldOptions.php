<?php

declare(strict_types=1);

namespace Verjuicer\Core\Event;

/** More about a field than its type tells, on a parameter of the constructor of a kind. */
#[\Attribute(\Attribute::TARGET_PARAMETER)]
final readonly class FieldOptions
{
    /**
     * @param bool $isOurs beyond the open format: other readers keep and ignore it, and one of another shape is no
     *     fault
     * @param int $most upper bound of a typed integer; the least is 1
     * @param list<\BackedEnum> $among of a choice: those that are offered here; none for all of them
     * @param list<string> $usual translation keys of words that are usual in it; others may be typed
     */
    public function __construct(
        public bool $isOurs = false,
        public FieldInput $input = FieldInput::Typed,
        public int $most = 1_000_000,
        public array $among = [],
        public array $usual = [],
    ) {
    }
}
