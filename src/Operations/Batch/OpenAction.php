<?php

declare(strict_types=1);

namespace Verjuicer\App\Operations\Batch;

/** A breach or a gap that nobody has settled, in words. */
final readonly class OpenAction
{
    /**
     * @param string $verdict the word of the format
     * @param list<string> $options what the code leaves to do, as whole sentences
     * @param string|null $advice who decides
     * @param string|null $claimedBy initials of whoever is on it
     */
    public function __construct(
        public string $rule,
        public string $verdict,
        public string $sentence,
        public string $citation,
        public array $options,
        public ?string $advice,
        public ?string $claimedBy,
    ) {
    }
}
