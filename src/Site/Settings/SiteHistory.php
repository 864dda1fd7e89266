<?php

declare(strict_types=1);

namespace Verjuicer\App\Site\Settings;

use Doctrine\DBAL\Connection;
use Verjuicer\App\Site\Site\Site;
use Verjuicer\Core\Measure\Instant;
use Verjuicer\Core\Measure\TemperatureUnit;

/** The settings of a site in force at the time of an event. */
final readonly class SiteHistory
{
    public function __construct(private Connection $connection)
    {
    }

    public function at(Site $site, Instant $at): SiteFacts
    {
        $facts = SiteValues::of($site);
        $facts['rule_set'] = $site->ruleSetAt($at);
        // Almost always nothing was changed since: then nothing is asked.
        $changed = $site->changedAt === null ? \PHP_INT_MIN : $site->changedAt->getTimestamp();
        foreach ($at->epoch < $changed ? $this->before($site, $at) : [] as $before) {
            $facts = $before + $facts;
        }
        $limits = [];
        foreach (\is_array($facts['house_limits']) ? $facts['house_limits'] : [] as $name => $seconds) {
            if (\is_int($seconds)) {
                $limits[(string) $name] = $seconds;
            }
        }

        return new SiteFacts(
            self::text($facts['name']),
            self::text($facts['timezone']),
            TemperatureUnit::from(self::text($facts['unit'])),
            \is_int($facts['elevation_m']) ? $facts['elevation_m'] : null,
            self::text($facts['rule_set']),
            $limits,
        );
    }

    /** @return list<array<string, mixed>> values each later change replaced, the latest first */
    private function before(Site $site, Instant $at): array
    {
        $changes = [];
        $rows = $this->connection->fetchFirstColumn(
            'SELECT before FROM site_change WHERE site_id = ? AND in_force_from > ? ORDER BY seq DESC',
            [$site->id->toRfc4122(), $at->rfc3339()],
        );
        foreach ($rows as $json) {
            /** @var array<string, mixed> $before */
            $before = json_decode(\is_string($json) ? $json : '{}', true, flags: \JSON_THROW_ON_ERROR);
            $changes[] = $before;
        }

        return $changes;
    }

    private static function text(mixed $value): string
    {
        return \is_string($value) ? $value : '';
    }
}
