<?php

declare(strict_types=1);

namespace Verjuicer\App\Operations\Probe;

/** What became of one reading that was sent. */
final readonly class ReadingResult
{
    /**
     * @param 'kept'|'known'|'refused' $outcome kept now, kept before, or not at all
     * @param string|null $pointer to what is wrong with it
     */
    public function __construct(
        public int $channel,
        public int $sequence,
        public string $outcome,
        public ?string $pointer = null,
        public ?string $message = null,
    ) {
    }

    /** @return array<string, int|string> as it is answered */
    public function toArray(): array
    {
        return ['channel' => $this->channel, 'sequence' => $this->sequence, 'outcome' => $this->outcome]
            + ($this->message === null ? [] : ['pointer' => $this->pointer ?? '', 'message' => $this->message]);
    }
}
