<?php

declare(strict_types=1);

namespace Verjuicer\Core\Event;

/** One way to say a kind in the log line; the word itself is in the translations, under `line.verb.` and this key. */
final readonly class LinePhrase
{
    /**
     * @param string|null $words the field that takes the words after it, `reason` for the event's own
     * @param string|null $number the field that takes the number after it
     * @param string|null $with the field that takes the words after "with"
     * @param list<string> $amounts the fields that take numbers with their unit after it: "0.2 kg", "12 portions"
     * @param array<string, string> $sets fields it says by itself, in the words of the open format
     */
    public function __construct(
        public string $key,
        public ?string $words = null,
        public ?string $number = null,
        public array $sets = [],
        public array $amounts = [],
        public ?string $with = null,
    ) {
    }
}
