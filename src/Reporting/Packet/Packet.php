<?php

declare(strict_types=1);

namespace Verjuicer\App\Reporting\Packet;

use Verjuicer\App\Platform\Progress\Eta;
use Verjuicer\App\Platform\Wording\Language;
use Verjuicer\Core\Measure\Instant;
use Verjuicer\Core\Measure\Span;

/** A packet and how far it is. */
final readonly class Packet
{
    /**
     * @param int|null $total batches; null until they were counted
     * @param string|null $problem why it could not be made
     * @param Instant|null $expiresAt until when a link opens it
     * @param string|null $sha256 of the file as it was made
     */
    public function __construct(
        public string $id,
        public Instant $askedAt,
        public PacketScope $scope,
        public string $paper,
        public Language $language,
        public int $done,
        public ?int $total,
        public ?Instant $finishedAt,
        public ?string $problem,
        public ?Instant $expiresAt,
        public string $siteId,
        public string $by,
        public ?string $sha256 = null,
    ) {
    }

    /** The estimated remaining time, by the progress since the request; null before any progress. */
    public function left(Instant $now): ?Span
    {
        return Eta::of($this->askedAt, $this->done, $this->total, $now);
    }

    public function isMaking(): bool
    {
        return $this->finishedAt === null && $this->problem === null;
    }
}
