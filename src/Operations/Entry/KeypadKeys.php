<?php

declare(strict_types=1);

namespace Verjuicer\App\Operations\Entry;

/** What the keypad has keys for. */
final readonly class KeypadKeys
{
    /**
     * @param array<int, KeypadTag> $tags
     * @param list<string> $thermometers
     * @param array<string, list<string>> $verbs every verb of the line, with the words that say how
     * @param array<string, list<string>> $likely the verbs of what is likely next, by stage; those of a cook before a
     *     tag is chosen
     */
    public function __construct(
        public array $tags,
        public array $thermometers,
        public array $verbs,
        public array $likely,
    ) {
    }
}
