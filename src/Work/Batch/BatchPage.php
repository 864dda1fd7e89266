<?php

declare(strict_types=1);

namespace Verjuicer\App\Work\Batch;

use Symfony\Component\HttpFoundation\Response;
use Symfony\Component\Uid\Uuid;
use Twig\Environment;
use Verjuicer\App\Ledger\Batch\Batch;
use Verjuicer\App\Ledger\Batch\Batches;
use Verjuicer\App\Ledger\Batch\BatchFacts;
use Verjuicer\App\Ledger\Batch\HeldPieces;
use Verjuicer\App\Ledger\Log\LastReadings;
use Verjuicer\App\Ledger\Lot\Lots;
use Verjuicer\App\Platform\Form\FormInput;
use Verjuicer\App\Platform\Now;
use Verjuicer\App\Projection\Lane\LanePoint;
use Verjuicer\App\Projection\Lane\Lanes;
use Verjuicer\App\Site\Site\Happened;
use Verjuicer\App\Work\Due\Claims;
use Verjuicer\App\Work\Entry\Doubtful;
use Verjuicer\App\Work\Entry\FieldLists;
use Verjuicer\Core\Event\Catalogue;
use Verjuicer\Core\Event\Kinds\Action;

/** The page of one batch: its picture, what the record shows, what is next, and all that was written down. */
final readonly class BatchPage
{
    public function __construct(
        private Lanes $lanes,
        private BatchParts $parts,
        private OpenActionList $actions,
        private Environment $twig,
        private FieldLists $lists,
        private Lots $lots,
        private Batches $batches,
        private Yields $yields,
        private Claims $claims,
        private HeldPieces $held,
        private BatchFacts $facts,
        private LastReadings $lastReadings,
        private Happened $happened,
        private Now $now,
    ) {
    }

    /** @return array{piece: string, spot: string, point: LanePoint} */
    private static function left(LanePoint $point): array
    {
        [$piece, $spot] = explode('/', $point->track, 2) + [1 => ''];

        return ['piece' => $piece, 'spot' => $spot, 'point' => $point];
    }

    /**
     * @param FormInput|null $sent the form of a step that could not be kept: it comes back as it was sent, with what is
     *     wrong
     * @param Doubtful|null $doubtful where it is only asked whether it is right
     */
    public function respond(Batch $batch, ?FormInput $sent = null, ?Doubtful $doubtful = null): Response
    {
        $lane = $this->lanes->of($batch);
        $isOpen = $lane === null ? $this->batches->isOpen($batch) : !$lane->hasEnded();
        $stage = $lane?->stage() ?? '';
        $html = $this->twig->render('work/batch/batch.html.twig', [
            'batch' => $batch,
            'site' => $batch->site,
            'now' => $this->now->instant(),
            'is_open' => $isOpen,
            'stage' => $stage,
            'reminders' => $lane->reminders ?? [],
            'facts' => $this->facts->of($batch),
            'held' => $this->held->numbers($batch),
            'is_mass' => $this->lastReadings->isOneMass($batch),
            'taps' => array_values(
                array_filter(
                    NextSteps::taps($stage),
                    static fn (string $tap): bool => $lane?->hasLeftover === true
                        || !str_starts_with($tap, Catalogue::of(Action::class)->name().'/'),
                ),
            ),
            'steps' => NextSteps::after($stage),
            'lists' => $this->lists->of($batch->site, $batch->ruleSet),
            'lots' => $this->lots->ofBatch($batch->root()),
            'portions' => $this->batches->portionsOf($batch),
            'yield' => $this->yields->of($batch),
            'actions' => $lane === null || $lane->actions() === [] ? [] : $this->actions->of($batch),
            'left' => array_map(
                fn (LanePoint $one): array => self::left($one) + [
                    'when' => $this->happened->told($one->at, $batch->site),
                ],
                $lane->left ?? [],
            ),
            'claims' => $this->claims->of($batch->site),
            'standing' => $this->parts->standing($batch, $lane),
            'live' => $this->parts->live($batch, $lane),
            'log' => $this->parts->log($batch, $lane),
            'entry_id' => Uuid::v7()->toRfc4122(),
            'sent' => $sent?->typed,
            'problems' => $sent->problems ?? [],
            'problem' => $doubtful === null ? array_values($sent->problems ?? [])[0] ?? null : null,
            'doubts' => $doubtful->doubts ?? [],
            'sentence' => $doubtful?->sentence,
        ]);

        return new Response(
            $html,
            $sent === null || $sent->isGood() ? Response::HTTP_OK : Response::HTTP_UNPROCESSABLE_ENTITY,
        );
    }
}
