<?php

declare(strict_types=1);

namespace Verjuicer\App\Work\Entry;

/** An open batch as the keypad knows it. */
final readonly class KeypadTag
{
    /**
     * @param list<int> $pieces it holds; none where it is one piece, or one mass
     * @param list<string> $spots it is read at
     * @param list<string> $verbs what is likely next, as the log line has them
     */
    public function __construct(
        public int $tag,
        public string $product,
        public array $pieces,
        public array $spots,
        public array $verbs,
    ) {
    }
}
