<?php

declare(strict_types=1);

namespace Verjuicer\App\Site\Settings;

use Verjuicer\Core\Measure\Instant;

/** A change of a site's settings, as it was recorded. */
final readonly class SiteChange
{
    /**
     * @param array<string, mixed> $before by name of the setting
     * @param array<string, mixed> $after the same names
     */
    public function __construct(
        public Instant $recordedAt,
        public Instant $from,
        public string $by,
        public string $reason,
        public array $before,
        public array $after,
    ) {
    }

    /**
     * @param array{recorded_at: int, in_force_from: int, initials: string, reason: string, before: string,
     *     after: string} $row
     */
    public static function ofRow(array $row): self
    {
        /** @var array<string, mixed> $before */
        $before = json_decode($row['before'], true, flags: \JSON_THROW_ON_ERROR);
        /** @var array<string, mixed> $after */
        $after = json_decode($row['after'], true, flags: \JSON_THROW_ON_ERROR);

        return new self(
            Instant::ofEpoch($row['recorded_at']),
            Instant::ofEpoch($row['in_force_from']),
            $row['initials'],
            $row['reason'],
            $before,
            $after,
        );
    }
}
