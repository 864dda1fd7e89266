<?php

declare(strict_types=1);

namespace Verjuicer\App\Platform\Problem;

use Symfony\Component\Translation\TranslatableMessage;

/** A request that cannot be carried out. It says how to fix it, and the input comes back. */
abstract class Problem extends \DomainException
{
    /**
     * @param string $key of the sentence that says how to fix it
     * @param array<string, string> $values of the sentence
     * @param string $field that it is about; `form` where it is about all of it
     */
    final protected function __construct(
        public readonly string $key,
        public readonly array $values = [],
        public readonly string $field = 'form',
    ) {
        parent::__construct($key);
    }

    public function sentence(): TranslatableMessage
    {
        return new TranslatableMessage($this->key, $this->values);
    }

    /** The HTTP status it is answered with. */
    public function status(): int
    {
        return 422;
    }

    /** Input as quoted in a sentence. */
    protected static function quoted(string $given): string
    {
        return mb_substr(mb_scrub($given), 0, 20);
    }
}
