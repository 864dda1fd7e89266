<?php

declare(strict_types=1);

namespace Verjuicer\App\Operations\Batch;

use Symfony\Component\HttpFoundation\Response;
use Symfony\Component\Uid\Uuid;
use Twig\Environment;
use Verjuicer\App\Ledger\Batch\Batch;
use Verjuicer\App\Operations\Entry\ImplausibleEntry;
use Verjuicer\App\Platform\Form\FormInput;
use Verjuicer\App\Platform\Now;
use Verjuicer\App\Projection\Lane\LanePoint;
use Verjuicer\App\Projection\Lane\Lanes;
use Verjuicer\App\Site\Site\EventTimeParser;
use Verjuicer\Core\Assess\Assessment;

/** The page of one batch: how it stands, what is next, its picture, what the record shows, what was written down. */
final readonly class BatchPage
{
    public function __construct(
        private Lanes $lanes,
        private BatchParts $parts,
        private OpenActionList $actions,
        private OfferedSteps $steps,
        private Environment $twig,
        private EventTimeParser $happened,
        private Now $now,
    ) {
    }

    /**
     * @param FormInput|null $sent the form of a step that could not be kept: it comes back as it was sent, with what is
     *     wrong
     * @param ImplausibleEntry|null $doubtful where it is only asked whether it is right
     */
    public function respond(Batch $batch, ?FormInput $sent = null, ?ImplausibleEntry $doubtful = null): Response
    {
        $lane = $this->lanes->of($batch);
        $steps = $this->steps->of($batch, $lane, false, $sent);
        if ($sent !== null && $doubtful === null && $this->isOfTheOthers($sent, $steps)) {
            return $this->steps($batch, $sent);
        }
        $view = new BatchView(
            $batch,
            $this->now->instant(),
            $steps,
            $this->parts->all($batch, $lane),
            array_map(
                fn (LanePoint $one): AbandonedSpot => new AbandonedSpot(
                    $one,
                    $this->happened->told($one->at, $batch->site),
                ),
                $lane->left ?? [],
            ),
            $lane === null ? [] : $this->actions->of(
                $batch,
                $lane,
                fn (): Assessment => $this->parts->judged($batch, $lane),
            ),
            $lane->reminders ?? [],
        );

        return $this->rendered('operations/batch/batch.html.twig', ['view' => $view], $sent, $doubtful);
    }

    /** Every step there is, with its form. */
    public function steps(Batch $batch, ?FormInput $sent = null): Response
    {
        $steps = $this->steps->of($batch, $this->lanes->of($batch), true, $sent);

        return $this->rendered(
            'operations/batch/steps.html.twig',
            ['batch' => $batch, 'site' => $batch->site, 'steps' => $steps],
            $sent,
            null,
        );
    }

    /** Whether what could not be kept stands on the page of all steps. */
    private function isOfTheOthers(FormInput $sent, Steps $steps): bool
    {
        $kind = $sent->typed->getString('type');

        $here = ['', 'action', 'note', 'probe_moved', $steps->likely?->kind];

        return $sent->typed->has('tag') || !\in_array($kind, $here, true);
    }

    /** @param array<string, mixed> $context */
    private function rendered(string $template, array $context, ?FormInput $sent, ?ImplausibleEntry $doubtful): Response
    {
        $html = $this->twig->render(
            $template,
            $context
                + [
                    'entry_id' => Uuid::v7()->toRfc4122(),
                    'sent' => $sent?->typed,
                    'problems' => $sent->problems ?? [],
                    'doubts' => $doubtful->doubts ?? [],
                    'sentence' => $doubtful?->sentence,
                ],
        );

        return new Response(
            $html,
            $sent === null || $sent->isGood() ? Response::HTTP_OK : Response::HTTP_UNPROCESSABLE_ENTITY,
        );
    }
}
