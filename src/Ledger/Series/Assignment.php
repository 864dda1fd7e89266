<?php

declare(strict_types=1);

namespace Verjuicer\App\Ledger\Series;

use Verjuicer\Core\Measure\Instant;

/** The assigned place of a channel from a moment on: a pit, the air of a place, a piece, or none. */
final readonly class Assignment
{
    /**
     * @param string $accountId of who said so
     * @param int|null $tag of its batch
     * @param bool $isOver whether its batch has ended
     */
    public function __construct(
        public string $id,
        public string $channelId,
        public Instant $at,
        public string $accountId,
        public string $by,
        public ChannelTarget $target,
        public ?string $pitId,
        public ?string $place,
        public ?string $batchId,
        public int $piece,
        public string $spot,
        public ?int $tag,
        public bool $isOver,
    ) {
    }
}
