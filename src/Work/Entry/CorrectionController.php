<?php

declare(strict_types=1);

namespace Verjuicer\App\Work\Entry;

use Symfony\Bundle\FrameworkBundle\Controller\AbstractController;
use Symfony\Component\HttpFoundation\InputBag;
use Symfony\Component\HttpFoundation\Request;
use Symfony\Component\HttpFoundation\Response;
use Symfony\Component\Routing\Attribute\Route;
use Symfony\Component\Routing\Requirement\Requirement;
use Symfony\Component\Security\Http\Attribute\IsGranted;
use Symfony\Component\Uid\Uuid;
use Verjuicer\App\Ledger\Batch\Batch;
use Verjuicer\App\Ledger\Batch\SiteBatches;
use Verjuicer\App\Ledger\Log\EventConflict;
use Verjuicer\App\Ledger\Log\StoredRecords;
use Verjuicer\App\Platform\Now;
use Verjuicer\App\Site\People\CurrentAccount;
use Verjuicer\App\Site\Site\WallTime;
use Verjuicer\Core\Record\Event;
use Verjuicer\Core\Record\EventType;

/** Puts a wrong entry right, or takes it back, by a further event with a reason. The entry itself stays in the record, struck. */
#[IsGranted('ROLE_CREW')]
#[Route('/batches/{id}/events/{event}', requirements: ['id' => Requirement::UUID, 'event' => Requirement::UUID])]
final class CorrectionController extends AbstractController
{
    public function __construct(
        private readonly SiteBatches $batches,
        private readonly StoredRecords $records,
        private readonly Journal $journal,
        private readonly CurrentAccount $account,
        private readonly Now $now,
    ) {
    }

    #[Route('', name: 'correction', methods: ['GET'])]
    public function form(string $id, string $event): Response
    {
        $batch = $this->batches->get($id);
        $wrong = $this->event($batch, $event);

        /** @var InputBag<string> $form */
        $form = new InputBag(['at' => WallTime::of($wrong->at, $batch->site->zone())] + EntryForm::typed($wrong, $batch->site));

        return $this->page($batch, $wrong, $form);
    }

    #[Route('', name: 'correction_keep', methods: ['POST'])]
    public function correct(string $id, string $event, Request $request): Response
    {
        return $this->keep($id, $event, $request, function (Batch $batch, Event $wrong, InputBag $form, string $reason): void {
            $at = WallTime::parse($form->getString('at'), $batch->site->zone(), $wrong->at) ?? throw EntryProblem::noTime($form->getString('at'));
            $entry = $this->journal->corrected($batch, EntryForm::corrected($wrong, $form, $batch->site, $this->now->instant()), $wrong);
            $this->journal->replace($batch, $this->account->get(), Uuid::fromString($form->getString('id')), $wrong, $entry, $at, $reason);
        });
    }

    #[Route('/void', name: 'batch_void', methods: ['POST'])]
    public function void(string $id, string $event, Request $request): Response
    {
        return $this->keep($id, $event, $request, function (Batch $batch, Event $wrong, InputBag $form, string $reason): void {
            $this->journal->void($batch, $this->account->get(), Uuid::fromString($form->getString('id')), $wrong, $reason);
        });
    }

    /** @param \Closure(Batch, Event, InputBag<string>, string): void $correction */
    private function keep(string $id, string $event, Request $request, \Closure $correction): Response
    {
        $batch = $this->batches->get($id);
        $wrong = $this->event($batch, $event);
        $form = $request->request;
        if (!$this->isCsrfTokenValid('correction', $form->getString('_token')) || !Uuid::isValid($form->getString('id'))) {
            return $this->page($batch, $wrong, $form, 'entry.problem.expired', [], Response::HTTP_FORBIDDEN);
        }
        $reason = trim($form->getString('reason'));
        try {
            $reason !== '' || throw EntryProblem::noReason();
            $correction($batch, $wrong, $form, $reason);
        } catch (EntryProblem $problem) {
            return $this->page($batch, $wrong, $form, $problem->key, $problem->values, Response::HTTP_UNPROCESSABLE_ENTITY);
        } catch (EventConflict $conflict) {
            return $this->page($batch, $wrong, $form, $conflict->key, [], Response::HTTP_CONFLICT);
        }
        $this->addFlash('corrected', $request->attributes->getString('_route') === 'batch_void' ? 'entry.undone' : 'entry.corrected');

        return $this->redirect($form->getString('back') === '/' ? $this->generateUrl('board') : $this->generateUrl('batch', ['id' => $id]), Response::HTTP_SEE_OTHER);
    }

    private function event(Batch $batch, string $id): Event
    {
        foreach ($this->records->of($batch)->events as $event) {
            if ($event->id === $id && $event->type !== EventType::Void) {
                return $event;
            }
        }
        throw $this->createNotFoundException();
    }

    /**
     * @param InputBag<string>      $form
     * @param array<string, string> $values
     */
    private function page(Batch $batch, Event $wrong, InputBag $form, ?string $problem = null, array $values = [], int $status = Response::HTTP_OK): Response
    {
        return $this->render('entry/correction.html.twig', [
            'batch' => $batch,
            'site' => $batch->site,
            'event' => $wrong,
            'fields' => EntryForm::fields($wrong->type),
            'form' => $form,
            'entry_id' => Uuid::v7()->toRfc4122(),
            'problem' => $problem,
            'problem_values' => $values,
        ], new Response(status: $status));
    }
}
