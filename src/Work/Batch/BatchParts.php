<?php

declare(strict_types=1);

namespace Verjuicer\App\Work\Batch;

use Symfony\Bundle\SecurityBundle\Security;
use Twig\Environment;
use Verjuicer\App\Ledger\Assessment\Assessments;
use Verjuicer\App\Ledger\Batch\Batch;
use Verjuicer\App\Ledger\Log\StoredRecords;
use Verjuicer\App\Platform\Now;
use Verjuicer\App\Platform\Page\RenderedPart;
use Verjuicer\App\Platform\Wording\Figures;
use Verjuicer\App\Projection\Forecast\Forecasts;
use Verjuicer\App\Projection\Lane\Lane;
use Verjuicer\Core\Assess\Finding\Finding;
use Verjuicer\Core\Ruleset\HouseLimits;
use Verjuicer\Core\Ruleset\RuleSetLibrary;

/** The two parts of a batch's page that look the same to everybody: what the record shows, and all that was written down. */
final readonly class BatchParts
{
    public function __construct(
        private Assessments $assessments,
        private StoredRecords $records,
        private RuleSetLibrary $ruleSets,
        private Forecasts $forecasts,
        private RenderedPart $part,
        private Environment $twig,
        private Figures $figures,
        private Security $security,
        private Now $now,
    ) {
    }

    /** The part that changes by itself. */
    public function live(Batch $batch, ?Lane $lane): string
    {
        return $lane === null
            ? $this->twig->render('work/batch/_unreadable.html.twig')
            : $this->part($batch, $lane, 'work/batch/_live.html.twig', fn (): array => $this->shown($batch));
    }

    public function log(Batch $batch, ?Lane $lane): string
    {
        $late = $this->ruleSets->get($batch->ruleSet)->get(HouseLimits::class)->lateEntry;

        return $this->part($batch, $lane, 'work/batch/_log.html.twig', fn (): array => [
            'log' => RecordLog::of($this->records->of($batch), $late),
            'may_correct' => $this->security->isGranted('ROLE_CREW'),
        ]);
    }

    /** @param \Closure(): array<string, mixed> $context */
    private function part(Batch $batch, ?Lane $lane, string $template, \Closure $context): string
    {
        $whole = static fn (): array => ['batch' => $batch, 'site' => $batch->site] + $context();
        $state = [$batch->id->toRfc4122(), $lane->version ?? 0, $this->security->isGranted('ROLE_CREW')];

        return $lane === null ? $this->twig->render($template, $whole()) : $this->part->of($template, $state, $whole);
    }

    /** @return array<string, mixed> */
    private function shown(Batch $batch): array
    {
        $assessment = $this->assessments->of($batch);
        $fall = $this->forecasts->fall($batch, $assessment);

        return [
            'assessment' => $assessment,
            'picture' => BatchPicture::of($assessment, $this->figures, $fall),
            'fall' => $fall,
            'limits' => HoldingLimits::of($assessment, $fall),
            'cook' => CookView::of($assessment),
            'requirement' => Requirement::of($assessment),
            'outlook' => $this->forecasts->cook($batch, $assessment),
            'allergens' => CookView::allergens($assessment),
            'is_unknown' => CookView::areAllergensUnknown($assessment),
            'judged' => WorstFirst::of(array_filter($assessment->findings, static fn (Finding $one): bool => $one->isJudged())),
            'cautions' => array_values(array_filter($assessment->findings, static fn (Finding $one): bool => !$one->isJudged())),
            'now' => $this->now->instant(),
        ];
    }
}
