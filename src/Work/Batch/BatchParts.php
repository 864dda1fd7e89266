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

/**
 * The parts of a batch's page that look the same to everybody: how it stands, what the record shows, and all that was
 * written down.
 */
final class BatchParts
{
    /** @var array<string, array<string, mixed>> what two parts show, asked for once */
    private array $asked = [];

    public function __construct(
        private readonly Assessments $assessments,
        private readonly StoredRecords $records,
        private readonly RuleSetLibrary $ruleSets,
        private readonly Forecasts $forecasts,
        private readonly RenderedPart $part,
        private readonly Environment $twig,
        private readonly Figures $figures,
        private readonly Security $security,
        private readonly Now $now,
    ) {
    }

    /** How it stands and how long there is: the part that comes first. */
    public function standing(Batch $batch, ?Lane $lane): string
    {
        return $lane === null
            ? ''
            : $this->part($batch, $lane, 'work/batch/_standing.html.twig', fn (): array => $this->shown($batch, $lane));
    }

    /** The other part that changes by itself: the picture and what the record shows. */
    public function live(Batch $batch, ?Lane $lane): string
    {
        return $lane === null
            ? $this->twig->render('work/batch/_unreadable.html.twig')
            : $this->part($batch, $lane, 'work/batch/_live.html.twig', fn (): array => $this->shown($batch, $lane));
    }

    public function log(Batch $batch, ?Lane $lane): string
    {
        $late = $this->ruleSets->get($batch->ruleSet)->get(HouseLimits::class)->lateEntry;

        return $this->part(
            $batch,
            $lane,
            'work/batch/_log.html.twig',
            fn (): array => [
                'log' => RecordLog::of($this->records->of($batch), $late),
                'may_correct' => $this->security->isGranted('ROLE_CREW'),
            ],
        );
    }

    /** @param \Closure(): array<string, mixed> $context */
    private function part(Batch $batch, ?Lane $lane, string $template, \Closure $context): string
    {
        $whole = static fn (): array => ['batch' => $batch, 'site' => $batch->site] + $context();
        $state = [$batch->id->toRfc4122(), $lane->version ?? 0, $this->security->isGranted('ROLE_CREW')];

        return $lane === null ? $this->twig->render($template, $whole()) : $this->part->of($template, $state, $whole);
    }

    /** @return array<string, mixed> */
    private function shown(Batch $batch, Lane $lane): array
    {
        return $this->asked[
            $batch->id->toRfc4122().' '.$lane->version.' '.$this->now->instant()->epoch
        ] ??= $this->ask($batch);
    }

    /** @return array<string, mixed> */
    private function ask(Batch $batch): array
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
            'judged' => WorstFirst::of(
                array_filter($assessment->findings, static fn (Finding $one): bool => $one->isJudged()),
            ),
            'cautions' => array_values(
                array_filter($assessment->findings, static fn (Finding $one): bool => !$one->isJudged()),
            ),
            'now' => $this->now->instant(),
        ];
    }
}
