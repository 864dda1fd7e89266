<?php

declare(strict_types=1);

namespace Verjuicer\App\Reporting\DailyLog;

use Doctrine\DBAL\Connection;
use Doctrine\ORM\EntityManagerInterface;
use Symfony\Component\Uid\Uuid;
use Symfony\Contracts\Translation\TranslatorInterface;
use Verjuicer\App\Catalogue\Thermometer\Thermometers;
use Verjuicer\App\Ledger\Assessment\Assessments;
use Verjuicer\App\Ledger\Batch\Batch;
use Verjuicer\App\Ledger\Chain\SiteChain;
use Verjuicer\App\Ledger\Chain\SiteDays;
use Verjuicer\App\Ledger\Chain\SiteKeys;
use Verjuicer\App\Ledger\Check\AccuracyChecks;
use Verjuicer\App\Ledger\Log\Ledger;
use Verjuicer\App\Ledger\Lot\Lot;
use Verjuicer\App\Operations\Batch\RecordLog;
use Verjuicer\App\Platform\Now;
use Verjuicer\App\Platform\Wording\FindingText;
use Verjuicer\App\Platform\Wording\MeasureFormatter;
use Verjuicer\App\Platform\Wording\ZoneText;
use Verjuicer\App\Site\People\Account;
use Verjuicer\App\Site\Site\Site;
use Verjuicer\App\Site\Site\WallTime;
use Verjuicer\Core\Assess\ActionTaken;
use Verjuicer\Core\Assess\Assessment;
use Verjuicer\Core\Assess\Finding\Finding;
use Verjuicer\Core\Assess\OpenActions;
use Verjuicer\Core\Event\EventKinds;
use Verjuicer\Core\Event\Kinds\Discard;
use Verjuicer\Core\Measure\Instant;
use Verjuicer\Core\Measure\LocalDate;
use Verjuicer\Core\Proof\Statement;

/** Makes day sheets, and keeps the signatures under them. */
final readonly class DailyLogs
{
    public function __construct(
        private Connection $connection,
        private EntityManagerInterface $entities,
        private Assessments $assessments,
        private FindingText $findings,
        private ZoneText $zone,
        private TranslatorInterface $translator,
        private Thermometers $thermometers,
        private AccuracyChecks $thermometerChecks,
        private Ledger $ledger,
        private MeasureFormatter $figures,
        private SiteChain $chain,
        private SiteDays $days,
        private SiteKeys $keys,
        private Now $now,
    ) {
    }

    public function of(Site $site, LocalDate $day): DailyLog
    {
        $from = $day->startIn($site->zone());
        $to = $day->plusDays(1)->startIn($site->zone());
        $signatures = $this->signatures($site, $day);
        $batches = $this->batches($site, $from, $to);
        $reasons = $this->reasons($site, $batches);
        $rows = $seen = [];
        foreach ($batches as $batch) {
            $rows[] = $this->batch($batch, $day, $from, $to, $reasons, $seen);
        }

        return new DailyLog(
            $day,
            $from,
            $to,
            WallTime::parse($day->plusDays(1)->iso().' '.$site->signsFrom, $site->zone(), $to) ?? $to,
            $rows,
            $this->checks($site, $from, $to),
            $this->lots($site, $from, $to),
            $this->disposals($site, $from, $to),
            $this->days->seal($site, $day),
            $signatures,
            $signatures === [] ? [] : $this->amendments($site, $from, $to, $signatures[0]),
        );
    }

    /**
     * Signs a day as it stands: with the digest of the chain up to its end, and a reason for each finding that is left
     * open.
     *
     * @param array<string, string> $reasons by "batch id/rule"
     * @param Instant|null $until end of the logged time, if the day is not over
     * @param list<string> $breaks faults of the chain, shown to the signer
     */
    public function sign(
        Uuid $id,
        DailyLog $sheet,
        Account $by,
        array $reasons,
        ?Instant $until,
        array $breaks,
    ): void {
        $this->ledger->write($by->site, function () use ($id, $sheet, $by, $reasons, $until, $breaks): void {
            // Everything: later entries about the day are listed below it, too.
            $seal = $this->chain->seal($by->site);
            $now = $this->now->instant();
            $at = $now->rfc3339();
            $proof = Statement::daySigned(
                $by->site->id->toRfc4122(),
                $id->toRfc4122(),
                $sheet->day->iso(),
                $by->id->toRfc4122(),
                $seal->position ?? 0,
                $seal->digest ?? '',
                $now->epoch,
            );
            $this->connection->executeStatement(
                'INSERT INTO day_sign (id, site_id, day, at, account_id, initials, position, digest, '
                .'reasons, until, breaks, proof) VALUES (?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?) '
                .'ON CONFLICT (id) DO NOTHING',
                [
                    $id->toRfc4122(),
                    $by->site->id->toRfc4122(),
                    $sheet->day->iso(),
                    $at,
                    $by->id->toRfc4122(),
                    $by->initials,
                    $seal->position ?? 0,
                    $seal->digest ?? '',
                    json_encode((object) $reasons, \JSON_THROW_ON_ERROR),
                    $until?->rfc3339(),
                    $breaks === [] ? null : json_encode($breaks, \JSON_THROW_ON_ERROR),
                    $this->keys->sign($by->site, $proof),
                ],
            );
            $this->connection->executeStatement(
                'INSERT INTO day_said (id, site_id, at, batches) VALUES (?, ?, ?, ?) ON CONFLICT (id) DO NOTHING',
                [
                    $id->toRfc4122(),
                    $by->site->id->toRfc4122(),
                    $at,
                    json_encode($this->said($sheet), \JSON_THROW_ON_ERROR),
                ],
            );
        });
    }

    /** Whether a signature is kept under this id already: the answer to it was lost. */
    public function isSigned(Site $site, Uuid $id): bool
    {
        return $this->connection->fetchOne('SELECT 1 FROM day_sign WHERE site_id = ? AND id = ?', [
            $site->id->toRfc4122(),
            $id->toRfc4122(),
        ]) !== false;
    }

    /** @return list<SignedBatchText> */
    private function said(DailyLog $sheet): array
    {
        return array_map(
            fn (DailyLogBatch $row): SignedBatchText => new SignedBatchText(
                $row->batch->id->toRfc4122(),
                $row->batch->tag.' · '.$row->batch->productName.' · '.$row->batch->code,
                $row->verdict,
                $row->batch->ruleSet,
                $row->zone,
                array_map(
                    fn (DailyLogFinding $one): string => implode(' · ', [
                        $this->translator->trans('rule.'.$one->finding->rule),
                        $this->translator->trans('verdict.'.($one->finding->verdict->value ?? 'caution')),
                        $one->sentence,
                        $one->finding->citation,
                    ]),
                    $row->findings,
                ),
            ),
            $sheet->batches,
        );
    }

    /** @return list<Batch> batches in progress at any time of the day: a night's cook is on both of its days */
    private function batches(Site $site, Instant $from, Instant $to): array
    {
        /** @var list<string> $ids */
        $ids = $this->connection->fetchFirstColumn(
            <<<'SQL'
            SELECT b.id FROM batch b LEFT JOIN batch_report r ON r.batch_id = b.id
            WHERE b.site_id = :site AND b.begun_at < :to AND (r.ended_at IS NULL OR r.ended_at >= :from)
            UNION
            SELECT e.batch_id FROM event e JOIN batch b ON b.id = e.batch_id WHERE b.site_id = :site
              AND e.at >= :from AND e.at < :to
            SQL,
            ['site' => $site->id->toRfc4122(), 'from' => $from->rfc3339(), 'to' => $to->rfc3339()],
        );

        return $ids === []
            ? []
            : $this->entities
                ->getRepository(Batch::class)
                ->findBy(['id' => array_map(Uuid::fromString(...), $ids)], ['tag' => 'ASC']);
    }

    /**
     * @param array<string, OpenFindingReason> $reasons by "batch id/rule"
     * @param array<string, true> $seen ids of entries that stand on the sheet already: portions share them
     */
    private function batch(
        Batch $batch,
        LocalDate $day,
        Instant $from,
        Instant $to,
        array $reasons,
        array &$seen,
    ): DailyLogBatch {
        $assessment = $this->assessments->whole($batch);
        $readings = array_filter(
            $assessment->timeline->readings->all(),
            static fn ($reading): bool => $reading->at >= $from->epoch && $reading->at < $to->epoch,
        );
        $findings = $elsewhere = [];
        foreach ($assessment->findings as $finding) {
            if (!$finding->isWrong()) {
                continue;
            }
            $one = $this->finding($batch, $assessment, $finding, $reasons);
            if ($one->day->iso() === $day->iso()) {
                $findings[] = $one;
            } elseif (!$one->day->isAfter($day)) {
                $elsewhere[$finding->rule] = $one->day;
            }
        }
        [$entries, $marked] = self::marked($assessment, $from, $to, $seen);

        return new DailyLogBatch(
            $batch,
            $assessment->verdict->value,
            \count($readings),
            LateReadings::among($readings, $assessment),
            $assessment->rules->house()->longAfter,
            $this->zone->of($assessment->dangerZone),
            $findings,
            $elsewhere,
            array_values(
                array_map(
                    fn (Finding $finding): string => $this->findings->sentence($finding, $assessment),
                    array_filter(
                        $assessment->findings,
                        static fn (Finding $finding): bool => $finding->verdict === null,
                    ),
                ),
            ),
            ActionTaken::of($assessment),
            $batch->begunAt->getTimestamp() < $from->epoch
                || $assessment->timeline->end === null
                || $assessment->timeline->end->epoch >= $to->epoch,
            $marked,
            $entries,
        );
    }

    /** @param array<string, OpenFindingReason> $reasons */
    private function finding(Batch $batch, Assessment $assessment, Finding $finding, array $reasons): DailyLogFinding
    {
        // It belongs to the day on which it went wrong.
        $moment = $finding->deadline ?? $finding->to ?? $finding->from
            ?? Instant::ofEpoch($batch->begunAt->getTimestamp());
        $asOf = $assessment->timeline->asOf;
        $actions = ActionTaken::about($assessment, $finding->rule);

        return new DailyLogFinding(
            $finding,
            $this->findings->sentence($finding, $assessment),
            LocalDate::ofInstant($moment->isAfter($asOf) ? $asOf : $moment, $batch->site->zone()),
            $this->evidence($batch->site, $assessment, $finding, $moment),
            \in_array($finding->rule, OpenActions::of($assessment), true) || $actions === [] ? null : end($actions),
            $reasons[$batch->id->toRfc4122().'/'.$finding->rule] ?? null,
        );
    }

    private function evidence(Site $site, Assessment $assessment, Finding $finding, Instant $told): string
    {
        $moments = [];
        foreach ($assessment->timeline->events as $event) {
            if (\in_array($event->id, $finding->evidence, true)) {
                $moments[] = $event->at;
            }
        }
        $count = \count($moments);

        return $count === 0 ? '' : $this->translator->trans('day.evidence', [
            '{count}' => $count,
            '{from}' => $this->figures->instant($moments[0], $site->zone(), $told),
            '{to}' => $this->figures->instant($moments[$count - 1], $site->zone(), $told),
        ]);
    }

    /**
     * @param array<string, true> $seen
     *
     * @return array{int, list<FlaggedEntry>} how many entries of the day, and those that are marked
     */
    private static function marked(Assessment $assessment, Instant $from, Instant $to, array &$seen): array
    {
        $entries = 0;
        $marked = [];
        foreach (array_reverse(RecordLog::of($assessment->record, $assessment->rules->house()->longAfter)) as $row) {
            $event = $row->event;
            if ($event->at->epoch < $from->epoch || $event->at->epoch >= $to->epoch || isset($seen[$event->id])) {
                continue;
            }
            $seen[$event->id] = true;
            ++$entries;
            $entry = new FlaggedEntry($event, $row->late, $row->replacedBy);
            if ($entry->marks() !== []) {
                $marked[] = $entry;
            }
        }

        return [$entries, $marked];
    }

    /**
     * @param list<Batch> $batches
     *
     * @return array<string, OpenFindingReason> by "batch id/rule": a finding needs one reason, under any day
     */
    private function reasons(Site $site, array $batches): array
    {
        $first = array_map(static fn (Batch $one): int => $one->begunAt->getTimestamp(), $batches);
        if ($first === []) {
            return [];
        }
        /** @var list<array{at: int, by: string, reasons: string}> $rows */
        $rows = $this->connection->fetchAllAssociative(
            'SELECT extract(epoch FROM at)::bigint AS at, initials AS by, reasons FROM day_sign '
            .'WHERE site_id = ? AND day >= ? ORDER BY position, at',
            [$site->id->toRfc4122(), LocalDate::ofInstant(Instant::ofEpoch(min($first)), $site->zone())->iso()],
        );
        $reasons = [];
        foreach ($rows as $row) {
            /** @var array<string, string> $said */
            $said = (array) json_decode($row['reasons'], true, flags: \JSON_THROW_ON_ERROR);
            foreach ($said as $of => $words) {
                $reasons[$of] ??= new OpenFindingReason($words, Instant::ofEpoch($row['at']), $row['by']);
            }
        }

        return $reasons;
    }

    /** @return list<array{label: string, at: Instant, by: string, method: string, read: string, passed: bool}> */
    private function checks(Site $site, Instant $from, Instant $to): array
    {
        $checks = [];
        foreach ($this->thermometers->of($site) as $thermometer) {
            foreach ($this->thermometerChecks->of($thermometer, $from, $to) as $check) {
                $checks[] = [
                    'label' => $thermometer->label,
                    'at' => $check->at,
                    'by' => $check->by,
                    'method' => $check->method,
                    'read' => $this->figures->temperature($check->read),
                    'passed' => $check->hasPassed,
                ];
            }
        }

        return $checks;
    }

    /** @return list<Lot> */
    private function lots(Site $site, Instant $from, Instant $to): array
    {
        /** @var list<string> $ids */
        $ids = $this->connection->fetchFirstColumn('SELECT id FROM lot WHERE site_id = ? AND at >= ? AND at < ?', [
            $site->id->toRfc4122(),
            $from->rfc3339(),
            $to->rfc3339(),
        ]);

        return $ids === []
            ? []
            : $this->entities
                ->getRepository(Lot::class)
                ->findBy(['id' => array_map(Uuid::fromString(...), $ids)], ['at' => 'ASC', 'number' => 'ASC']);
    }

    /**
     * @return list<array{at: Instant, by: string, why: string|null, reason: string|null, grams: int|null,
     *     batch: string, id: string}>
     */
    private function disposals(Site $site, Instant $from, Instant $to): array
    {
        /**
         * @var list<array{at: int, by: string, why: string|null, reason: string|null, grams: int|null, batch: string,
         *     id: string}> $rows
         */
        $rows = $this->connection->fetchAllAssociative(
            <<<'SQL'
            SELECT extract(epoch FROM e.at)::bigint AS at, e.initials AS by, e.members->>'why' AS why, e.reason,
              round(1000 * (e.members->>'weight_kg')::numeric)::int AS grams,
              b.code || ' ' || b.product_name AS batch, b.id
            FROM event e JOIN batch b ON b.id = e.batch_id
            WHERE b.site_id = ? AND e.type = ? AND e.at >= ? AND e.at < ? AND NOT EXISTS (SELECT 1 FROM event o
              WHERE o.batch_id = e.batch_id AND o.replaces = e.id)
            ORDER BY e.at
            SQL,
            [$site->id->toRfc4122(), EventKinds::of(Discard::class)->name(), $from->rfc3339(), $to->rfc3339()],
        );

        return array_map(static fn (array $row): array => ['at' => Instant::ofEpoch($row['at'])] + $row, $rows);
    }

    /** @return list<DailyLogSignature> the latest first */
    private function signatures(Site $site, LocalDate $day): array
    {
        /**
         * @var list<array{at: int, by: string, account_id: string, name: string, position: int, digest: string,
         *     until: int|null, reasons: string, breaks: string|null, said: string|null}> $rows
         */
        $rows = $this->connection->fetchAllAssociative(
            <<<'SQL'
            SELECT extract(epoch FROM s.at)::bigint AS at, s.initials AS by, s.account_id, a.name, s.position, s.digest,
              extract(epoch FROM s.until)::bigint AS until, s.reasons, s.breaks, d.batches AS said
            FROM day_sign s JOIN account a ON a.id = s.account_id LEFT JOIN day_said d ON d.id = s.id
              WHERE s.site_id = ? AND s.day = ? ORDER BY s.at DESC, s.position DESC
            SQL,
            [$site->id->toRfc4122(), $day->iso()],
        );

        return array_map(static function (array $row): DailyLogSignature {
            /** @var array<string, string> $reasons */
            $reasons = (array) json_decode($row['reasons'], true, flags: \JSON_THROW_ON_ERROR);

            /** @var list<string> $breaks */
            $breaks = json_decode($row['breaks'] ?? '[]', true, flags: \JSON_THROW_ON_ERROR);

            /**
             * @var list<array{id: string, batch: string, verdict: string, rules: string, zone: string,
             *     findings: list<string>}> $said
             */
            $said = json_decode($row['said'] ?? '[]', true, flags: \JSON_THROW_ON_ERROR);

            return new DailyLogSignature(
                Instant::ofEpoch($row['at']),
                $row['by'],
                $row['account_id'],
                $row['name'],
                $row['position'],
                $row['digest'],
                $row['until'] === null ? null : Instant::ofEpoch($row['until']),
                $reasons,
                $breaks,
                array_map(SignedBatchText::of(...), $said),
            );
        }, $rows);
    }

    /**
     * @return list<array{at: Instant, recorded_at: Instant, by: string, batch: string, id: string, type: string}>
     *     entries about the day recorded after it was signed
     */
    private function amendments(Site $site, Instant $from, Instant $to, DailyLogSignature $last): array
    {
        /** @var list<array{at: int, recorded_at: int, by: string, batch: string, id: string, type: string}> $rows */
        $rows = $this->connection->fetchAllAssociative(
            <<<'SQL'
            SELECT extract(epoch FROM e.at)::bigint AS at, extract(epoch FROM e.recorded_at)::bigint AS recorded_at,
              e.initials AS by, b.code AS batch, b.id, e.type
            FROM event e JOIN batch b ON b.id = e.batch_id JOIN chain_link l ON l.kind = 'event' AND l.row_id = e.id
            WHERE b.site_id = :site AND l.position > :signed AND e.recorded_at >= :at AND e.id IN (
                SELECT d.id FROM event d WHERE d.at >= :from AND d.at < :to
                UNION SELECT c.id FROM event d JOIN event c ON c.replaces = d.id WHERE d.at >= :from AND d.at < :to
            )
            UNION ALL
            SELECT extract(epoch FROM f.recorded_at)::bigint, extract(epoch FROM f.recorded_at)::bigint, f.initials,
              b.code, b.id, 'facts'
            FROM batch_fact f JOIN batch b ON b.id = f.batch_id LEFT JOIN batch_report r ON r.batch_id = b.id
              JOIN chain_link l ON l.kind = 'batch_fact' AND l.row_id = f.id
            WHERE f.site_id = :site AND l.position > :signed AND f.recorded_at >= :at AND b.begun_at < :to
              AND (r.ended_at IS NULL OR r.ended_at >= :from)
            ORDER BY recorded_at
            SQL,
            [
                'site' => $site->id->toRfc4122(),
                'signed' => $last->position,
                'at' => $last->at->rfc3339(),
                'from' => $from->rfc3339(),
                'to' => $to->rfc3339(),
            ],
        );

        return array_map(
            static fn (array $row): array => [
                'at' => Instant::ofEpoch($row['at']),
                'recorded_at' => Instant::ofEpoch($row['recorded_at']),
            ] + $row,
            $rows,
        );
    }
}
