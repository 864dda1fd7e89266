<?php

declare(strict_types=1);

namespace Verjuicer\App\Operations\Label;

use Doctrine\DBAL\Connection;
use Symfony\Component\Uid\Uuid;
use Twig\Environment;
use Verjuicer\App\Ledger\Assessment\Assessments;
use Verjuicer\App\Ledger\Batch\Batch;
use Verjuicer\App\Operations\Batch\CookView;
use Verjuicer\App\Platform\Now;
use Verjuicer\App\Platform\Page\ConfiguredAddress;
use Verjuicer\App\Platform\Paging\Page;
use Verjuicer\App\Platform\Paging\PageKey;
use Verjuicer\App\Platform\Picture\QrCode;
use Verjuicer\App\Site\People\Account;
use Verjuicer\App\Site\Site\Site;
use Verjuicer\Core\Assess\Assessment;
use Verjuicer\Core\Event\Kinds\ColdHold;
use Verjuicer\Core\Event\Kinds\Cook;
use Verjuicer\Core\Event\Kinds\Cool;
use Verjuicer\Core\Event\Kinds\Freeze;
use Verjuicer\Core\Event\Kinds\Thaw;
use Verjuicer\Core\Measure\Instant;
use Verjuicer\Core\Measure\LocalDate;
use Verjuicer\Core\Ruleset\DateMarkRules;

/**
 * Labels of pans and packs, and the spool they go to: a stand-in for a label printer, whose every label stays to be
 * looked at.
 */
final readonly class Labels
{
    public function __construct(
        private Connection $connection,
        private Environment $twig,
        private Assessments $assessments,
        private ConfiguredAddress $address,
        private Now $now,
    ) {
    }

    /** @return string SVG */
    public function of(Batch $batch): string
    {
        $assessment = $this->assessments->of($batch);
        [$modules, $path] = QrCode::of($this->address->of('log', ['line' => $batch->tag.' ']));

        return $this->twig->render('operations/label/_label.svg.twig', [
            'batch' => $batch,
            'site' => $batch->site,
            'prepared' => self::prepared($assessment),
            'dates' => self::dates($assessment),
            'allergens' => CookView::allergens($assessment),
            'is_unknown' => CookView::areAllergensUnknown($assessment),
            'modules' => $modules,
            'qr' => $path,
        ]);
    }

    /** @return bool whether it is new; the same again is printed once */
    public function print(Uuid $id, Batch $batch, Account $by): bool
    {
        return $this->connection->executeStatement(
            'INSERT INTO label (id, site_id, batch_id, account_id, at, svg) VALUES (?, ?, ?, ?, ?, ?) '
            .'ON CONFLICT (id) DO NOTHING',
            [
                $id->toRfc4122(),
                $batch->site->id->toRfc4122(),
                $batch->id->toRfc4122(),
                $by->id->toRfc4122(),
                $this->now->instant()->rfc3339(),
                $this->of($batch),
            ],
        ) === 1;
    }

    /**
     * @return Page<array{id: string, batch_id: string, at: Instant, initials: string, svg: string}> the latest first
     */
    public function spool(Site $site, ?PageKey $after): Page
    {
        /** @var list<array{id: string, batch_id: string, at: int, initials: string, svg: string}> $rows */
        $rows = $this->connection->fetchAllAssociative(
            <<<'SQL'
            SELECT l.id, l.batch_id, extract(epoch FROM l.at)::bigint AS at, a.initials, l.svg
            FROM label l JOIN account a ON a.id = l.account_id
            WHERE l.site_id = :site AND (l.at, l.id) < (to_timestamp(:place), :id::uuid) ORDER BY l.at DESC,
              l.id DESC LIMIT :most
            SQL,
            ($after ?? PageKey::first())->parameters() + ['site' => $site->id->toRfc4122()],
        );
        $labels = array_map(static fn (array $row): array => ['at' => Instant::ofEpoch($row['at'])] + $row, $rows);

        return Page::of($labels, static fn (array $one): PageKey => new PageKey($one['at']->epoch, $one['id']));
    }

    /** The day it was prepared: when it came off the heat, else when it was begun. */
    private static function prepared(Assessment $assessment): Instant
    {
        $prepared = $assessment->timeline->events[0]->at ?? $assessment->timeline->asOf;
        foreach ($assessment->timeline->stages as $stage) {
            $prepared = $stage->is(Cook::class) ? $stage->to : $prepared;
        }

        return $prepared;
    }

    /**
     * @return array<string, Instant|LocalDate> until when, by what limits it: the moment to throw it away, or the day
     *     to use it by
     */
    private static function dates(Assessment $assessment): array
    {
        $dates = [];
        foreach ($assessment->countdowns as $countdown) {
            if (\in_array($countdown->rule, ['time_control', 'house.vacuum_pack'], true)) {
                $dates[$countdown->rule] ??= $countdown->deadline;
            }
        }
        $site = $assessment->record->site;
        $stage = $assessment->timeline->stage();
        if (
            !isset($dates['time_control'])
            && $stage?->is(Cool::class, ColdHold::class, Freeze::class, Thaw::class) === true
        ) {
            $dayOne = LocalDate::ofInstant(self::prepared($assessment), $site->zone);
            $useBy = $dayOne->plusDays($assessment->rules->get(DateMarkRules::class)->days - 1);
            foreach ($assessment->findings as $finding) {
                $marked = $finding->rule === 'date_mark' ? $finding->values['use_by'] ?? null : null;
                $useBy = $marked instanceof LocalDate ? $marked : $useBy;
            }
            $dates['date_mark'] = $useBy;
        }

        return $dates;
    }
}
