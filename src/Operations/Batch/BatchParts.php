<?php

declare(strict_types=1);

namespace Verjuicer\App\Operations\Batch;

use Symfony\Bundle\SecurityBundle\Security;
use Twig\Environment;
use Verjuicer\App\Ledger\Assessment\Assessments;
use Verjuicer\App\Ledger\Batch\Batch;
use Verjuicer\App\Ledger\Batch\Batches;
use Verjuicer\App\Ledger\Batch\BatchFacts;
use Verjuicer\App\Ledger\Log\StoredRecords;
use Verjuicer\App\Ledger\Lot\Lots;
use Verjuicer\App\Operations\Probe\SensorTroubles;
use Verjuicer\App\Platform\Now;
use Verjuicer\App\Platform\Page\RenderedPart;
use Verjuicer\App\Platform\Wording\MeasureFormatter;
use Verjuicer\App\Projection\Forecast\Forecasts;
use Verjuicer\App\Projection\Forecast\ForecastTiming;
use Verjuicer\App\Projection\Lane\Lane;
use Verjuicer\App\Projection\Lane\Lanes;
use Verjuicer\Core\Assess\Assessment;
use Verjuicer\Core\Assess\Disposal;
use Verjuicer\Core\Assess\Finding\Finding;
use Verjuicer\Core\Assess\Undercooked;
use Verjuicer\Core\Record\Record;
use Verjuicer\Core\Ruleset\HouseLimits;
use Verjuicer\Core\Ruleset\RuleSetLibrary;

/**
 * The parts of a batch's page that look the same to everybody: how it stands, what the record shows, and all that was
 * written down.
 */
final class BatchParts
{
    private const SAME_SECONDS = 5;

    /** @var array<int, array<string, mixed>> what several parts show of one assessment */
    private array $asked = [];

    /** @var array<string, Assessment> of the last batch alone, by its state */
    private array $judged = [];

    public function __construct(
        private readonly Assessments $assessments,
        private readonly StoredRecords $records,
        private readonly RuleSetLibrary $ruleSets,
        private readonly Forecasts $forecasts,
        private readonly Lanes $lanes,
        private readonly Lots $lots,
        private readonly Batches $batches,
        private readonly BatchFacts $facts,
        private readonly Yields $yields,
        private readonly RenderedPart $part,
        private readonly Environment $twig,
        private readonly MeasureFormatter $figures,
        private readonly SensorTroubles $troubles,
        private readonly Security $security,
        private readonly Now $now,
    ) {
    }

    /** @return array<string, string> HTML by the name of the part, all of them */
    public function all(Batch $batch, ?Lane $lane): array
    {
        $version = $this->lanes->version($batch->site);

        return $this->parts($batch, $lane, $version) + [
            'around' => $this->around($batch, $lane, $version),
            'log' => $this->log($batch, $lane),
        ];
    }

    /** @return array<string, string> HTML by the name of the part: those that change by themselves */
    public function changing(Batch $batch, ?Lane $lane): array
    {
        return $this->parts($batch, $lane, $this->lanes->version($batch->site));
    }

    /** @return array<string, string> */
    private function parts(Batch $batch, ?Lane $lane, int $version): array
    {
        if ($lane === null) {
            return [
                'head' => $this->head($batch, null, $version),
                'standing' => '',
                'shows' => '',
                'live' => $this->twig->render('operations/batch/_unreadable.html.twig'),
            ];
        }
        $shown = fn (): array => $this->shown($batch, $lane);

        return [
            'head' => $this->head($batch, $lane, $version),
            'standing' => $this->part($batch, $lane, 'operations/batch/_standing.html.twig', $shown),
            'shows' => $this->part($batch, $lane, 'operations/batch/_shows.html.twig', $shown),
            'live' => $this->part($batch, $lane, 'operations/batch/_live.html.twig', $shown),
        ];
    }

    /** What it is, and how it was read last. */
    private function head(Batch $batch, ?Lane $lane, int $version): string
    {
        $state = [$batch->id->toRfc4122(), $lane->version ?? 0, $version, $this->mayCorrect()];

        return $this->part->of('operations/batch/_head.html.twig', $state, fn (): array => [
            'batch' => $batch,
            'site' => $batch->site,
            'lane' => $lane,
            'lots' => $this->lots->ofBatch($batch->root()),
        ]);
    }

    /** What was put right of it, where it came from and where it went: as it changes with other batches, too. */
    private function around(Batch $batch, ?Lane $lane, int $version): string
    {
        $state = [$batch->id->toRfc4122(), $version, $this->mayCorrect()];

        return $this->part->of('operations/batch/_around.html.twig', $state, fn (): array => [
            'batch' => $batch,
            'site' => $batch->site,
            'facts' => $this->facts->of($batch),
            'portions' => $this->batches->portionsOf($batch),
            'yield' => $this->yields->of($batch, $this->known($batch, $lane)),
            'may_weigh' => $this->mayCorrect() && $this->batches->isOpen($batch),
        ]);
    }

    private function log(Batch $batch, ?Lane $lane): string
    {
        $late = $this->ruleSets->get($batch->ruleSet)->get(HouseLimits::class)->lateEntry;

        return $this->part($batch, $lane, 'operations/batch/_log.html.twig', function () use (
            $batch,
            $lane,
            $late,
        ): array {
            $judged = $lane === null ? null : $this->judged($batch, $lane);
            $readings = $judged?->timeline->readings;
            $log = LogPage::first(
                RecordLog::of($judged->record ?? $this->records->of($batch), $late),
                $readings === null ? 0 : $readings->count() - $readings->size(),
            );

            return [
                'log' => $log->rows,
                'more' => $log->more,
                'after' => $log->last(),
                'may_correct' => $this->mayCorrect(),
            ];
        });
    }

    /** @param \Closure(): array<string, mixed> $context */
    private function part(Batch $batch, ?Lane $lane, string $template, \Closure $context): string
    {
        $whole = static fn (): array => ['batch' => $batch, 'site' => $batch->site] + $context();
        $state = [$batch->id->toRfc4122(), $lane->version ?? 0, $this->mayCorrect()];

        return $lane === null ? $this->twig->render($template, $whole()) : $this->part->of($template, $state, $whole);
    }

    private function mayCorrect(): bool
    {
        return $this->security->isGranted('ROLE_CREW');
    }

    /** @return array<string, mixed> */
    private function shown(Batch $batch, Lane $lane): array
    {
        $judged = $this->judged($batch, $lane);

        return $this->asked[spl_object_id($judged)] ??= $this->forecasts->while(
            ForecastTiming::UnlessItComes,
            fn (): array => $this->ask($batch, $judged),
        );
    }

    /** What its record shows at this moment, judged once however many parts ask. */
    public function judged(Batch $batch, Lane $lane): Assessment
    {
        $state = $batch->id->toRfc4122().' '.$lane->version;
        $now = $this->now->instant();
        $known = $this->judged[$state] ?? null;
        // A large record takes longer than a second to judge: it is of one moment for all parts all the same.
        if ($known === null || $now->epoch - $known->timeline->asOf->epoch > self::SAME_SECONDS) {
            $this->judged = [$state => $this->assessments->of($batch)];
            $this->asked = [];
        }

        return $this->judged[$state];
    }

    /** Its record, where another part has read it already. */
    private function known(Batch $batch, ?Lane $lane): ?Record
    {
        return ($this->judged[$batch->id->toRfc4122().' '.($lane->version ?? 0)] ?? null)?->record;
    }

    /** @return array<string, mixed> */
    private function ask(Batch $batch, Assessment $assessment): array
    {
        $fall = $this->forecasts->fall($batch, $assessment);
        $cook = $this->forecasts->cook($batch, $assessment);

        return [
            'assessment' => $assessment,
            'is_undercooked' => Undercooked::is($assessment),
            // Off the heat between two cooks: nothing that is to be cooled.
            'is_pause' => Undercooked::is($assessment) && $assessment->timeline->stage()?->name() === 'rest',
            'is_disposed' => Disposal::of($assessment) !== null,
            'picture' => BatchPicture::of($assessment, $this->figures, $fall, $cook),
            'fall' => $fall,
            'remedies' => $this->forecasts->remedies($batch, $assessment),
            'limits' => HoldingLimits::of($assessment, $fall),
            'cook' => CookView::of($assessment),
            'requirement' => Requirement::of($assessment),
            'outlook' => $cook,
            'rescue' => $cook?->lateness() === null ? null : $this->forecasts->rescue($batch, $assessment, $cook),
            'allergens' => CookView::allergens($assessment),
            'is_unknown' => CookView::areAllergensUnknown($assessment),
            'judged' => FindingGroup::all(
                WorstFirst::of(
                    array_filter($assessment->findings, static fn (Finding $one): bool => $one->isJudged()),
                ),
            ),
            'cautions' => FindingGroup::all(
                array_values(
                    array_filter($assessment->findings, static fn (Finding $one): bool => !$one->isJudged()),
                ),
            ),
            'troubles' => $this->troubles->ofBatch($batch),
            'is_earlier' => $this->forecasts->wasEarlier($batch),
            'now' => $this->now->instant(),
        ];
    }
}
