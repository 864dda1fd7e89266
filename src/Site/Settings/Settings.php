<?php

declare(strict_types=1);

namespace Verjuicer\App\Site\Settings;

use Doctrine\DBAL\Connection;
use Doctrine\DBAL\LockMode;
use Doctrine\ORM\EntityManagerInterface;
use Symfony\Component\Uid\Uuid;
use Verjuicer\App\Platform\Now;
use Verjuicer\App\Site\People\Account;
use Verjuicer\App\Site\Site\Site;
use Verjuicer\Core\Measure\Instant;

/**
 * Changes the settings of a site: each change is recorded with the old values, the person and the time it takes effect.
 *
 * @phpstan-import-type Values from SiteValues
 */
final readonly class Settings
{
    public function __construct(
        private Connection $connection,
        private EntityManagerInterface $entities,
        private Now $now,
    ) {
    }

    /**
     * @param Values $values
     * @param Instant $rulesFrom when another edition of the code comes into force; all else does at once
     *
     * @return bool whether anything was another value before
     */
    public function change(Account $by, array $values, Instant $rulesFrom, string $reason): bool
    {
        return $this->connection->transactional(function () use ($by, $values, $rulesFrom, $reason): bool {
            $site = $by->site;
            $this->entities->lock($site, LockMode::PESSIMISTIC_WRITE);
            $this->entities->refresh($site);
            $before = SiteValues::of($site);
            $changed = array_keys(
                array_filter($values, static fn (mixed $value, string $name): bool => $value !== $before[$name], 1),
            );
            if ($changed === []) {
                return false;
            }
            $now = $this->now->instant();
            SiteValues::set($site, $values);
            if (\in_array('rule_set', $changed, true)) {
                $before['rule_set'] = $site->ruleSetAt($now);
                $site->ruleSet = $before['rule_set'];
                $site->nextRuleSet = $values['rule_set'];
                $site->nextRuleSetFrom = self::dateTime($rulesFrom);
                $this->record($by, $before, $values, ['rule_set'], $rulesFrom, $reason);
            }
            $atOnce = array_values(array_diff($changed, ['rule_set']));
            if ($atOnce !== []) {
                $this->record($by, $before, $values, $atOnce, $now, $reason);
            }
            $this->entities->flush();

            return true;
        });
    }

    /** @return list<SiteChange> the latest first */
    public function of(Site $site, int $most): array
    {
        /**
         * @var list<array{recorded_at: int, in_force_from: int, initials: string, reason: string, before: string,
         *     after: string}> $rows
         */
        $rows = $this->connection->fetchAllAssociative(
            <<<SQL
            SELECT extract(epoch FROM recorded_at)::bigint AS recorded_at, initials, reason, before, after,
                   extract(epoch FROM in_force_from)::bigint AS in_force_from
            FROM site_change WHERE site_id = ? ORDER BY seq DESC LIMIT $most
            SQL,
            [$site->id->toRfc4122()],
        );

        return array_map(SiteChange::ofRow(...), $rows);
    }

    /**
     * @param Values $before
     * @param Values $after
     * @param list<string> $names
     */
    private function record(
        Account $by,
        array $before,
        array $after,
        array $names,
        Instant $from,
        string $reason,
    ): void {
        $only = array_flip($names);
        $this->connection->insert('site_change', [
            'id' => Uuid::v7()->toRfc4122(),
            'site_id' => $by->site->id->toRfc4122(),
            'recorded_at' => $this->now->instant()->rfc3339(),
            'account_id' => $by->id->toRfc4122(),
            'initials' => $by->initials,
            'in_force_from' => $from->rfc3339(),
            'before' => json_encode(array_intersect_key($before, $only), \JSON_THROW_ON_ERROR),
            'after' => json_encode(array_intersect_key($after, $only), \JSON_THROW_ON_ERROR),
            'reason' => $reason,
        ]);
        $last = $by->site->changedAt?->getTimestamp() ?? \PHP_INT_MIN;
        if (array_intersect($names, SiteValues::JUDGED) !== [] && $from->epoch > $last) {
            $by->site->changedAt = self::dateTime($from);
        }
    }

    private static function dateTime(Instant $at): \DateTimeImmutable
    {
        return new \DateTimeImmutable('@'.$at->epoch);
    }
}
