<?php

declare(strict_types=1);

namespace Verjuicer\App\Projection\Learning;

use Doctrine\DBAL\ArrayParameterType;
use Doctrine\DBAL\Connection;
use Symfony\Component\Uid\Uuid;
use Verjuicer\App\Ledger\Batch\Batch;
use Verjuicer\App\Platform\Now;
use Verjuicer\App\Site\People\Account;
use Verjuicer\App\Site\Site\Site;
use Verjuicer\Core\Assess\Assessment;
use Verjuicer\Core\Forecast\Belief\LearnedParameters;
use Verjuicer\Core\Forecast\Learning\BatchReplay;
use Verjuicer\Core\Forecast\Learning\LearnedSample;
use Verjuicer\Core\Forecast\Learning\LearningSubject;
use Verjuicer\Core\Measure\Instant;
use Verjuicer\Core\Measure\LocalDate;

/**
 * Values learned from this kitchen's past cooks for its forecasts. The samples of each finished batch are kept, and
 * those of the latest batches of a product, a pit or a method are combined into a version per day. Withdrawing a
 * version puts the one before in force, and its batches no longer count.
 */
final readonly class LearnedPriors
{
    private const HEARD = 20; // batches, the latest
    private const SHOWN = 10; // versions of a subject

    public function __construct(private Connection $connection, private Now $now)
    {
    }

    /** The values in force for a batch now. */
    public function learned(Site $site, Assessment $assessment): ?LearnedParameters
    {
        $subjects = BatchReplay::subjects($assessment);
        if ($subjects === []) {
            return null;
        }
        /** @var list<array{about: string, subject: string, unknowns: string}> $rows */
        $rows = $this->connection->fetchAllAssociative(
            <<<'SQL'
            SELECT DISTINCT ON (about, subject) about, subject, unknowns FROM prior_version
            WHERE site_id = ? AND subject IN (?) AND withdrawn_at IS NULL
            ORDER BY about, subject, made_at DESC, id DESC
            SQL,
            [$site->id->toRfc4122(), array_values($subjects)],
            [1 => ArrayParameterType::STRING],
        );
        $learned = null;
        foreach ($rows as $row) {
            if (($subjects[$row['about']] ?? null) === $row['subject']) {
                $learned = ($learned ?? new LearnedParameters())->with(
                    new LearnedParameters(self::unknowns($row['unknowns'])),
                );
            }
        }

        return $learned;
    }

    /**
     * Replaces the samples of a batch, and makes today's version of each subject they change.
     *
     * @param list<LearnedSample> $lessons of a batch that is over
     */
    public function hear(Batch $batch, Instant $over, array $lessons): void
    {
        $id = $batch->id->toRfc4122();
        $site = $batch->site;
        /** @var list<array{about: string, subject: string}> $before */
        $before = $this->connection->fetchAllAssociative(
            'DELETE FROM prior_lesson WHERE batch_id = ? RETURNING about, subject',
            [$id],
        );
        $changed = [];
        foreach ($before as $one) {
            $changed[$one['about']."\n".$one['subject']] = [LearningSubject::from($one['about']), $one['subject']];
        }
        foreach ($lessons as $lesson) {
            $this->connection->executeStatement(
                <<<'SQL'
                INSERT INTO prior_lesson (batch_id, about, subject, site_id, over_at, shown) VALUES (?, ?, ?, ?, ?, ?)
                ON CONFLICT (batch_id, about, subject) DO UPDATE SET shown = excluded.shown
                SQL,
                [
                    $id,
                    $lesson->of->value,
                    $lesson->subject,
                    $site->id->toRfc4122(),
                    $over->rfc3339(),
                    json_encode((object) $lesson->shown, \JSON_THROW_ON_ERROR),
                ],
            );
            $changed[$lesson->of->value."\n".$lesson->subject] = [$lesson->of, $lesson->subject];
        }
        foreach ($changed as [$about, $subject]) {
            $this->version($site, $about, $subject);
        }
    }

    /** @return list<LearnedPrior> the latest of each subject first, then earlier ones */
    public function all(Site $site): array
    {
        /**
         * @var list<array{id: string, about: string, subject: string, made: int, unknowns: string,
         *     batches: string|null, withdrawn: int|null, by: string|null, is_in_force: bool}> $rows
         */
        $rows = $this->connection->fetchAllAssociative(
            <<<'SQL'
            SELECT * FROM (
            SELECT v.id, v.about, v.subject, extract(epoch FROM v.made_at)::bigint AS made, v.unknowns,
              (SELECT jsonb_object_agg(b.id, b.code) FROM batch b
                WHERE b.id IN (SELECT one::uuid FROM jsonb_array_elements_text(v.batches) AS one)) AS batches,
              extract(epoch FROM v.withdrawn_at)::bigint AS withdrawn, a.initials AS by,
              v.withdrawn_at IS NULL AND v.id = first_value(v.id) OVER (
                PARTITION BY v.about, v.subject ORDER BY v.withdrawn_at IS NULL DESC, v.made_at DESC, v.id DESC
              ) AS is_in_force,
              row_number() OVER (PARTITION BY v.about, v.subject ORDER BY v.made_at DESC, v.id DESC) AS place
            FROM prior_version v LEFT JOIN account a ON a.id = v.withdrawn_by_id
            WHERE v.site_id = :site
            ) AS versions
            WHERE is_in_force OR place <= :most
            ORDER BY array_position(ARRAY['product', 'pit', 'method'], about), subject, made DESC, id DESC
            SQL,
            ['site' => $site->id->toRfc4122(), 'most' => self::SHOWN],
        );

        return array_map(
            static fn (array $row): LearnedPrior => new LearnedPrior(
                $row['id'],
                LearningSubject::from($row['about']),
                $row['subject'],
                Instant::ofEpoch($row['made']),
                new LearnedParameters(self::unknowns($row['unknowns'])),
                self::codes($row['batches'] ?? '{}'),
                $row['withdrawn'] === null ? null : Instant::ofEpoch($row['withdrawn']),
                $row['by'],
                $row['is_in_force'],
            ),
            $rows,
        );
    }

    /** @return bool whether there is such a version here that was in force */
    public function withdraw(Account $by, string $id): bool
    {
        return $this->connection->executeStatement(
            <<<'SQL'
            UPDATE prior_version SET withdrawn_at = ?, withdrawn_by_id = ?
            WHERE id = ? AND site_id = ? AND withdrawn_at IS NULL
            SQL,
            [$this->now->instant()->rfc3339(), $by->id->toRfc4122(), $id, $by->site->id->toRfc4122()],
        ) === 1;
    }

    /** @return bool whether there is such a version here that had been taken back */
    public function hearAgain(Account $by, string $id): bool
    {
        return $this->connection->executeStatement(
            <<<'SQL'
            UPDATE prior_version SET withdrawn_at = NULL, withdrawn_by_id = NULL
            WHERE id = ? AND site_id = ? AND withdrawn_at IS NOT NULL
            SQL,
            [$id, $by->site->id->toRfc4122()],
        ) === 1;
    }

    private function version(Site $site, LearningSubject $about, string $subject): void
    {
        $its = ['site' => $site->id->toRfc4122(), 'about' => $about->value, 'subject' => $subject];
        /** @var list<array{batch_id: string, shown: string}> $lessons */
        $lessons = $this->connection->fetchAllAssociative(
            <<<'SQL'
            SELECT l.batch_id, l.shown FROM prior_lesson l
            WHERE l.site_id = :site AND l.about = :about AND l.subject = :subject AND (
              NOT EXISTS (
                SELECT 1 FROM prior_version v
                WHERE v.site_id = l.site_id AND v.about = l.about AND v.subject = l.subject
                  AND v.withdrawn_at IS NOT NULL AND jsonb_exists(v.batches, l.batch_id::text))
              OR EXISTS (
                SELECT 1 FROM prior_version v
                WHERE v.site_id = l.site_id AND v.about = l.about AND v.subject = l.subject
                  AND v.withdrawn_at IS NULL AND jsonb_exists(v.batches, l.batch_id::text)))
            ORDER BY l.over_at DESC, l.batch_id LIMIT :most
            SQL,
            $its + ['most' => self::HEARD],
        );
        $learned = LearnedParameters::of(
            array_map(static fn (array $one): array => self::unknowns($one['shown']), $lessons),
        );
        $learned = $about->narrows() ? $learned : $learned?->asWide();
        $unknowns = $learned->unknowns ?? [];
        $batches = $learned === null ? [] : array_column($lessons, 'batch_id');
        sort($batches);
        $today = LocalDate::ofInstant($this->now->instant(), $site->zone())->iso();
        /** @var array{id: string, is_of_today: bool, unknowns: string, batches: string}|false $latest */
        $latest = $this->connection->fetchAssociative(
            <<<'SQL'
            SELECT id, made_on = :today AS is_of_today, unknowns, batches FROM prior_version
            WHERE site_id = :site AND about = :about AND subject = :subject AND withdrawn_at IS NULL
            ORDER BY made_at DESC, id DESC LIMIT 1
            SQL,
            $its + ['today' => $today],
        );
        $before = $latest === false
            ? [[], []]
            : [self::unknowns($latest['unknowns']), json_decode($latest['batches'], flags: \JSON_THROW_ON_ERROR)];
        if ($before === [$unknowns, $batches]) {
            return;
        }
        $known = [
            $this->now->instant()->rfc3339(),
            json_encode((object) $unknowns, \JSON_THROW_ON_ERROR),
            json_encode($batches, \JSON_THROW_ON_ERROR),
        ];
        if ($latest !== false && $latest['is_of_today']) {
            $this->connection->executeStatement(
                'UPDATE prior_version SET made_at = ?, unknowns = ?, batches = ? WHERE id = ?',
                [...$known, $latest['id']],
            );
        } else {
            // Also an empty version, if the batches of the one before no longer count.
            $this->connection->executeStatement(
                <<<'SQL'
                INSERT INTO prior_version (id, site_id, about, subject, made_on, made_at, unknowns, batches)
                VALUES (?, ?, ?, ?, ?, ?, ?, ?)
                SQL,
                [Uuid::v7()->toRfc4122(), ...array_values($its), $today, ...$known],
            );
        }
    }

    /** @return array<int, array{float, float}> */
    private static function unknowns(string $json): array
    {
        $unknowns = [];
        foreach ((array) json_decode($json, true, flags: \JSON_THROW_ON_ERROR) as $unknown => $says) {
            if (\is_int($unknown) && \is_array($says) && is_numeric($says[0] ?? null) && is_numeric($says[1] ?? null)) {
                $unknowns[$unknown] = [(float) $says[0], (float) $says[1]];
            }
        }

        return $unknowns;
    }

    /** @return array<string, string> by id */
    private static function codes(string $json): array
    {
        $codes = [];
        foreach ((array) json_decode($json, true, flags: \JSON_THROW_ON_ERROR) as $id => $code) {
            $codes[(string) $id] = \is_string($code) ? $code : '';
        }
        asort($codes);

        return $codes;
    }
}
