<?php

declare(strict_types=1);

namespace Verjuicer\App\Operations\Alarm;

use Doctrine\DBAL\Connection;
use Verjuicer\App\Platform\Machine\BackgroundProcesses;
use Verjuicer\App\Platform\Now;
use Verjuicer\App\Site\Site\Site;
use Verjuicer\Core\Measure\Span;

/** What the board says of alarms. */
final readonly class AlarmLines
{
    private const TEST_DAYS = 7;

    public function __construct(
        private Alarms $alarms,
        private BackgroundProcesses $processes,
        private Connection $connection,
        private Now $now,
    ) {
    }

    /** For how long nobody has looked for alarms, if that is longer than may be. */
    public function watchLateBy(): ?Span
    {
        $seconds = $this->processes->lateBy(BackgroundProcesses::WATCH);

        return $seconds === null ? null : Span::ofSeconds($seconds);
    }

    /** @return list<Alarm> those that ask for somebody now, but those that only want a look */
    public function of(Site $site): array
    {
        return array_values(
            array_filter($this->alarms->open($site), static fn (Alarm $one): bool => $one->level !== AlarmLevel::Look),
        );
    }

    /** Whether one that arrives nowhere could stay unnoticed: nobody tried for a week, and somebody is to be told. */
    public function isTestDue(Site $site): bool
    {
        return $this->connection->fetchOne(
            <<<'SQL'
            SELECT EXISTS (SELECT FROM duty_shift WHERE site_id = :site AND NOT is_removed)
              AND NOT EXISTS (SELECT FROM alarm WHERE site_id = :site AND cause LIKE 'test:%' AND raised_at > :since)
            SQL,
            [
                'site' => $site->id->toRfc4122(),
                'since' => $this->now->instant()->plus(Span::ofHours(-24 * self::TEST_DAYS))->rfc3339(),
            ],
        ) === true;
    }
}
