<?php

declare(strict_types=1);

namespace Verjuicer\App\Work\Batch;

use Symfony\Bundle\FrameworkBundle\Controller\AbstractController;
use Symfony\Component\HttpFoundation\Request;
use Symfony\Component\HttpFoundation\Response;
use Symfony\Component\Routing\Attribute\Route;
use Symfony\Component\Routing\Requirement\Requirement;
use Symfony\Component\Uid\Uuid;
use Verjuicer\App\Ledger\Batch\SiteBatches;
use Verjuicer\App\Ledger\Log\EventConflict;
use Verjuicer\App\Platform\Now;
use Verjuicer\App\Site\People\CurrentAccount;
use Verjuicer\App\Work\Entry\EntryEcho;
use Verjuicer\App\Work\Entry\EntryForm;
use Verjuicer\App\Work\Entry\EntryProblem;
use Verjuicer\App\Work\Entry\Journal;
use Verjuicer\Core\Record\EventType;

/** A step of a batch: one tap, or a tap and the little it asks for. */
final class StepController extends AbstractController
{
    public function __construct(
        private readonly SiteBatches $batches,
        private readonly BatchPage $page,
        private readonly Journal $journal,
        private readonly EntryEcho $echo,
        private readonly CurrentAccount $account,
        private readonly Now $now,
    ) {
    }

    #[Route('/batches/{id}/step', name: 'batch_step', requirements: ['id' => Requirement::UUID], methods: ['POST'])]
    public function step(string $id, Request $request): Response
    {
        $batch = $this->batches->get($id);
        $form = $request->request;
        if (!$this->isCsrfTokenValid('step', $form->getString('_token'))) {
            return $this->page->respond($batch, 'entry.problem.expired', status: Response::HTTP_FORBIDDEN, typed: $form);
        }
        // A tap says it all: "wrap/with/paper".
        $tap = explode('/', $form->getString('tap'), 3);
        if (\count($tap) === 3) {
            $form->set($tap[1], $tap[2]);
        }
        $type = EventType::tryFrom($tap[0] === '' ? $form->getString('type') : $tap[0]);
        if ($type === null || !Uuid::isValid($form->getString('id'))) {
            return $this->page->respond($batch, 'entry.problem.no_id', status: Response::HTTP_UNPROCESSABLE_ENTITY, typed: $form);
        }
        try {
            $entry = $this->journal->completed($batch, EntryForm::entry($type, $form, $batch->site, $this->now->instant(), EntryForm::minutesAgo(trim($form->getString('minutes_ago', '0')))));
            $event = $this->journal->keep($batch, $this->account->get(), Uuid::fromString($form->getString('id')), $entry);
        } catch (EntryProblem $problem) {
            return $this->page->respond($batch, $problem->key, $problem->values, Response::HTTP_UNPROCESSABLE_ENTITY, $form);
        } catch (EventConflict $conflict) {
            return $this->page->respond($batch, $conflict->key, status: Response::HTTP_CONFLICT, typed: $form);
        }
        $this->addFlash('kept', ['sentence' => $this->echo->of($batch, $entry), 'batch' => $batch->id->toRfc4122(), 'event' => $event->id]);

        return $this->redirectToRoute('batch', ['id' => $id], Response::HTTP_SEE_OTHER);
    }
}
