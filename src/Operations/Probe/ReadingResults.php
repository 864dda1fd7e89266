<?php

declare(strict_types=1);

namespace Verjuicer\App\Operations\Probe;

use Verjuicer\Core\Measure\Instant;

/** What became of all that was sent. */
final readonly class ReadingResults
{
    /**
     * @param int|null $skewSeconds what was added to the times sent; null where the sensor did not tell its clock
     * @param list<ReadingResult> $readings in the order sent
     */
    public function __construct(public Instant $receivedAt, public ?int $skewSeconds, public array $readings)
    {
    }

    /** Whether nothing of it was taken, though there was something. */
    public function isAllRefused(): bool
    {
        foreach ($this->readings as $one) {
            if ($one->outcome !== 'refused') {
                return false;
            }
        }

        return $this->readings !== [];
    }

    /** @return array<string, mixed> as it is answered */
    public function toArray(): array
    {
        return [
            'received_at' => $this->receivedAt->rfc3339(),
            'clock_skew_s' => $this->skewSeconds,
            'readings' => array_map(static fn (ReadingResult $one): array => $one->toArray(), $this->readings),
        ];
    }
}
