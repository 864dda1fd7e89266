<?php

declare(strict_types=1);

namespace Verjuicer\App\Work\Batch;

use Symfony\Bundle\SecurityBundle\Security;
use Symfony\Component\HttpFoundation\InputBag;
use Symfony\Component\HttpFoundation\Response;
use Symfony\Component\Uid\Uuid;
use Twig\Environment;
use Verjuicer\App\Catalogue\Pit\Pit;
use Verjuicer\App\Catalogue\Pit\Pits;
use Verjuicer\App\Catalogue\Product\Products;
use Verjuicer\App\Catalogue\Recipe\Recipe;
use Verjuicer\App\Catalogue\Recipe\Recipes;
use Verjuicer\App\Ledger\Batch\Batch;
use Verjuicer\App\Ledger\Log\StoredRecords;
use Verjuicer\App\Ledger\Lot\Lots;
use Verjuicer\App\Platform\Now;
use Verjuicer\App\Platform\Page\RenderedPart;
use Verjuicer\App\Platform\Wording\Figures;
use Verjuicer\App\Platform\Wording\FindingText;
use Verjuicer\App\Projection\Lane\BoardLanes;
use Verjuicer\App\Projection\Lane\Lane;
use Verjuicer\App\Work\Due\Claims;
use Verjuicer\App\Work\Entry\EntryForm;
use Verjuicer\App\Work\Portion\Portions;
use Verjuicer\Core\Assess\Assessment;
use Verjuicer\Core\Assess\Assessor;
use Verjuicer\Core\Assess\Finding\Finding;
use Verjuicer\Core\Assess\OpenActions;
use Verjuicer\Core\Forecast\CookOutlook;
use Verjuicer\Core\Forecast\FallOutlook;
use Verjuicer\Core\Record\EventType;
use Verjuicer\Core\Ruleset\RuleSetLibrary;

/** The page of one batch: its picture, what the record shows, what is next, and all that was written down. */
final readonly class BatchPage
{
    public function __construct(
        private StoredRecords $records,
        private RuleSetLibrary $ruleSets,
        private Assessor $assessor,
        private BoardLanes $lanes,
        private RenderedPart $part,
        private Environment $twig,
        private Security $security,
        private Figures $figures,
        private Products $products,
        private Pits $pits,
        private Recipes $recipes,
        private Lots $lots,
        private Portions $portions,
        private Yields $yields,
        private Claims $claims,
        private FindingText $findings,
        private Now $now,
    ) {
    }

    /**
     * @param array<string, string> $values of the problem's sentence
     * @param InputBag<string>|null $typed  the form of a step that could not be kept: it comes back as it was sent
     */
    public function respond(Batch $batch, ?string $problem = null, array $values = [], int $status = Response::HTTP_OK, ?InputBag $typed = null): Response
    {
        $lane = $this->lanes->of($batch, $this->now->instant());

        return new Response($this->twig->render('batch/batch.html.twig', [
            'batch' => $batch,
            'site' => $batch->site,
            'now' => $this->now->instant(),
            'is_open' => !$lane->hasEnded,
            'stage' => $lane->stage()?->value,
            'taps' => $lane->hasEnded ? [] : Step::taps($lane->stage()),
            'lists' => ['pit' => array_map(static fn (Pit $pit): string => $pit->name, $this->pits->of($batch->site)), 'recipe' => array_map(static fn (Recipe $recipe): string => $recipe->name, $this->recipes->of($batch->site))],
            'lots' => $this->lots->ofBatch($batch->root()),
            'portions' => $this->portions->of($batch),
            'yield' => $this->yields->of($batch),
            'actions' => $lane->actions === [] ? [] : $this->openActions($batch),
            'claims' => $this->claims->of($batch->site),
            'steps' => array_map(static fn (EventType $type): array => ['type' => $type, 'fields' => [...EntryForm::fields($type), ...($type === EventType::Discard ? ['reason'] : [])]], Step::after($lane->stage())),
            'live' => $this->part($lane, $batch, 'batch/_live.html.twig', fn (): array => $this->shown($batch)),
            'log' => $this->part($lane, $batch, 'batch/_log.html.twig', fn (): array => ['log' => RecordLog::of($this->records->of($batch), $this->ruleSets->get($batch->ruleSet)->house->lateEntry), 'may_correct' => $this->security->isGranted('ROLE_CREW')]),
            'entry_id' => Uuid::v7()->toRfc4122(),
            'typed' => $typed ?? new InputBag(),
            'problem' => $problem,
            'problem_values' => $values,
        ]), $status);
    }

    /** The part of the page that changes by itself. */
    public function live(Batch $batch): string
    {
        return $this->part($this->lanes->of($batch, $this->now->instant()), $batch, 'batch/_live.html.twig', fn (): array => $this->shown($batch));
    }

    public function assess(Batch $batch): Assessment
    {
        $record = $this->records->of($batch);

        return $this->assessor->assess($record, $this->ruleSets->get($record->rules), $this->now->instant());
    }

    /** @return list<array{rule: string, verdict: string, sentence: string, citation: string, options: list<string>}> what asks for a corrective action, worst first */
    private function openActions(Batch $batch): array
    {
        $assessment = $this->assess($batch);
        $actions = [];
        foreach (OpenActions::of($assessment) as $rule) {
            foreach (self::worstFirst($assessment->findings) as $finding) {
                if ($finding->rule === $rule && $finding->verdict !== null) {
                    $actions[] = ['rule' => $rule, 'verdict' => $finding->verdict->value, 'sentence' => $this->findings->sentence($finding, $assessment), 'citation' => $finding->citation, 'options' => $this->findings->options($finding, $assessment)];
                    break;
                }
            }
        }

        return $actions;
    }

    /** @param \Closure(): array<string, mixed> $context */
    private function part(Lane $lane, Batch $batch, string $template, \Closure $context): string
    {
        return $this->part->of($template, [$lane->batchId, $lane->version, $this->security->isGranted('ROLE_CREW')], static fn (): array => ['batch' => $batch, 'site' => $batch->site] + $context());
    }

    /** @return array<string, mixed> */
    private function shown(Batch $batch): array
    {
        $assessment = $this->assess($batch);

        return [
            'assessment' => $assessment,
            'picture' => BatchPicture::of($assessment, $this->figures, FallOutlook::of($assessment, $batch->size())),
            'fall' => $fall = FallOutlook::of($assessment, $batch->size()),
            'limits' => HoldingLimits::of($assessment, $fall),
            'cook' => CookView::of($assessment),
            'requirement' => Requirement::of($assessment),
            'outlook' => CookOutlook::of($assessment, $this->products->ofBatch($batch)?->doneness()?->from),
            'allergens' => CookView::allergens($assessment),
            'judged' => self::worstFirst(array_filter($assessment->findings, static fn (Finding $finding): bool => $finding->isJudged())),
            'cautions' => array_values(array_filter($assessment->findings, static fn (Finding $finding): bool => !$finding->isJudged())),
            'now' => $this->now->instant(),
        ];
    }

    /**
     * @param array<Finding> $findings
     *
     * @return list<Finding>
     */
    private static function worstFirst(array $findings): array
    {
        usort($findings, static fn (Finding $one, Finding $other): int => ($other->verdict?->isWorseThan($one->verdict ?? $other->verdict) ?? false) <=> ($one->verdict?->isWorseThan($other->verdict ?? $one->verdict) ?? false));

        return $findings;
    }
}
