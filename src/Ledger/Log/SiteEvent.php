<?php

declare(strict_types=1);

namespace Verjuicer\App\Ledger\Log;

use Verjuicer\Core\Json\DocumentProblems;
use Verjuicer\Core\Json\Fields;
use Verjuicer\Core\Measure\Instant;
use Verjuicer\Core\Measure\Temperature;

/** Something that happened to a lot, at a pit or to a thermometer, as it was written down. */
final readonly class SiteEvent
{
    /** @param array<string, mixed> $members */
    public function __construct(
        public string $id,
        public string $subjectId,
        public Instant $at,
        public Instant $recordedAt,
        public string $accountId,
        public string $by,
        public string $type,
        public array $members,
    ) {
    }

    public function text(string $name): ?string
    {
        $value = $this->members[$name] ?? null;

        return \is_string($value) ? $value : null;
    }

    public function whole(string $name): int
    {
        $value = $this->members[$name] ?? null;

        return \is_int($value) ? $value : 0;
    }

    public function temperature(string $name): ?Temperature
    {
        $value = $this->members[$name] ?? null;

        return \is_array($value)
            ? (new Fields((object) ['t' => (object) $value], null, '', new DocumentProblems()))->temperature('t')
            : null;
    }
}
