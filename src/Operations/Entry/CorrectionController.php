<?php

declare(strict_types=1);

namespace Verjuicer\App\Operations\Entry;

use Symfony\Component\HttpFoundation\Request;
use Symfony\Component\HttpFoundation\Response;
use Symfony\Component\Routing\Attribute\Route;
use Symfony\Component\Routing\Requirement\Requirement;
use Symfony\Component\Security\Http\Attribute\IsGranted;
use Verjuicer\App\Ledger\Batch\Batch;
use Verjuicer\App\Ledger\Batch\Batches;
use Verjuicer\App\Ledger\Log\Ledger;
use Verjuicer\App\Ledger\Log\PitShare;
use Verjuicer\App\Ledger\Log\StoredRecords;
use Verjuicer\App\Platform\Form\FormController;
use Verjuicer\App\Platform\Form\FormInput;
use Verjuicer\App\Platform\Now;
use Verjuicer\App\Platform\Problem\Problem;
use Verjuicer\App\Platform\Problem\RedisplaysForm;
use Verjuicer\App\Site\People\CurrentAccount;
use Verjuicer\App\Site\Site\EventTimeParser;
use Verjuicer\Core\Event\EventKinds;
use Verjuicer\Core\Event\Kind;
use Verjuicer\Core\Event\Kinds\Voided;
use Verjuicer\Core\Measure\Instant;
use Verjuicer\Core\Record\Event;

/**
 * Puts a wrong entry right, or takes it back, by a further event with a reason. The entry itself stays in the record,
 * struck.
 */
#[IsGranted('ROLE_CREW')]
#[Route('/batches/{id}/events/{event}', requirements: ['id' => Requirement::UUID, 'event' => Requirement::UUID])]
final class CorrectionController extends FormController implements RedisplaysForm
{
    public function __construct(
        private readonly Batches $batches,
        private readonly StoredRecords $records,
        private readonly DetailForm $form,
        private readonly Completion $completion,
        private readonly RecordEntry $entry,
        private readonly ReceivingCorrection $received,
        private readonly PieceSplitter $partWays,
        private readonly Ledger $ledger,
        private readonly FieldLists $lists,
        private readonly EventTimeParser $happened,
        private readonly CurrentAccount $account,
        private readonly Now $now,
    ) {
    }

    #[Route('', name: 'correction', methods: ['GET'])]
    public function show(string $id, string $event, Request $request): Response
    {
        $batch = $this->batches->get($id);
        $wrong = self::asOther($this->event($batch, $event), $request->query->getString('as'));
        $filled = ['as' => $request->query->getString('as'), 'when' => $this->happened->told($wrong->at, $batch->site)];

        return $this->again($batch, $wrong, $this->blank($filled + $this->form->typed($wrong, $batch->site)));
    }

    #[Route('', name: 'correction_keep', methods: ['POST'])]
    public function correct(string $id, string $event, Request $request): Response
    {
        $batch = $this->batches->ofEvent($id, $event);
        $wrong = $this->event($batch, $event);
        $input = $this->read($request, 'correction');
        $uuid = $input->id();
        $reason = $this->reason($input);
        $at = $this->at($input, $wrong, $batch);
        $wrong = self::asOther($wrong, $input->text('as'));
        $changes = $this->form->changes($wrong, $input, $batch->site);
        if (!$input->isGood() || $at === null) {
            return $this->again($batch, $wrong, $input);
        }
        $detail = $this->completion->corrected($batch, $wrong, $changes);
        $draft = new Draft($uuid, $detail, $at, $reason, $wrong->id);
        $this->ledger->write($batch->site, function () use ($batch, $wrong, $draft, $input): void {
            $this->entry->keep($batch, $this->account->get(), $input->isOn('sure'), $draft);
            $this->received->follow($batch, $wrong, $draft, $this->account->get());
        });

        return $this->done($input, $id, 'entry.corrected');
    }

    #[Route('/void', name: 'batch_void', methods: ['POST'])]
    public function void(string $id, string $event, Request $request): Response
    {
        $batch = $this->batches->ofEvent($id, $event);
        $wrong = $this->event($batch, $event);
        $input = $this->read($request, 'correction');
        $uuid = $input->id();
        $reason = $this->reason($input);
        if (!$input->isGood()) {
            return $this->again($batch, $wrong, $input);
        }
        $draft = new Draft($uuid, new Voided(), $this->now->instant(), $reason, $wrong->id);
        $this->ledger->write($batch->site, function () use ($uuid, $batch, $draft, $reason): void {
            $this->entry->keep($batch, $this->account->get(), true, $draft);
            $this->partWays->rejoin($uuid, $batch, $this->account->get(), $draft->at, $reason);
        });

        return $this->done($input, $id, 'entry.undone');
    }

    public function showAgain(Request $request, Problem $problem): Response
    {
        $batch = $this->batches->get($request->attributes->getString('id'));
        $input = $this->refused($request, $problem);
        $wrong = self::asOther($this->event($batch, $request->attributes->getString('event')), $input->text('as'));

        return $this->again($batch, $wrong, $input);
    }

    /**
     * A stage that was another kind of stage: with what both kinds say as it was, and what only the other says still
     * open.
     */
    private static function asOther(Event $wrong, string $as): Event
    {
        $kind = EventKinds::named($as);
        if ($kind === null || !$kind->beginsStage() || !$wrong->kind()->beginsStage() || $kind === $wrong->kind()) {
            return $wrong;
        }
        $values = array_intersect_key($wrong->kind()->values($wrong->detail), $kind->fields);
        foreach ($kind->fields as $name => $field) {
            if ($field->isRequired && $field->choices !== null) {
                $values[$name] ??= $field->choices::cases()[0];
            }
        }

        return new Event(
            $wrong->id,
            $wrong->at,
            $wrong->by,
            $kind->make($values),
            $wrong->replaces,
            $wrong->reason,
            $wrong->recordedAt,
        );
    }

    private function reason(FormInput $input): string
    {
        $reason = $input->text('reason');
        if ($reason === '') {
            $input->refuse('reason', 'entry.problem.no_reason');
        }

        return $reason;
    }

    /** When it happened: to the second as it was, where its time was not touched. */
    private function at(FormInput $input, Event $wrong, Batch $batch): ?Instant
    {
        return $input->text('when') === $this->happened->told($wrong->at, $batch->site)
            ? $wrong->at
            : $input->read('when', fn (string $given) => $this->happened->read($given, $batch->site, $wrong->at));
    }

    private function done(FormInput $input, string $id, string $sentence): Response
    {
        $this->addFlash('corrected', $sentence);
        $back = $input->text('back') === '/' ? $this->generateUrl('board') : $this->generateUrl('batch', ['id' => $id]);

        return $this->redirect($back, Response::HTTP_SEE_OTHER);
    }

    private function event(Batch $batch, string $id): Event
    {
        foreach ($this->records->of($batch)->events as $event) {
            if ($event->id === $id && !$event->is(Voided::class) && !isset($event->extensions[PitShare::MARK])) {
                return $event;
            }
        }
        throw $this->createNotFoundException();
    }

    private function again(Batch $batch, Event $wrong, FormInput $input): Response
    {
        return $this->page('operations/entry/correction.html.twig', $input, [
            'batch' => $batch,
            'site' => $batch->site,
            'event' => $wrong,
            'kind' => $wrong->kind()->name(),
            'others' => self::otherStages($wrong),
            'fields' => DetailForm::fields($wrong->kind()),
            'lists' => $this->lists->of($batch->site, $batch->ruleSet, [$wrong->kind()]),
        ]);
    }

    /** @return list<string> what else a stage may have been */
    private static function otherStages(Event $wrong): array
    {
        if (!$wrong->kind()->beginsStage()) {
            return [];
        }

        return array_values(array_diff(EventKinds::stages(), [$wrong->kind()->name()]));
    }
}
