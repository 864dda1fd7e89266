<?php

declare(strict_types=1);

namespace Verjuicer\App\Operations\Batch;

use Symfony\Component\HttpFoundation\Request;
use Symfony\Component\HttpFoundation\Response;
use Symfony\Component\Routing\Attribute\Route;
use Symfony\Component\Routing\Requirement\Requirement;
use Symfony\Component\Uid\Uuid;
use Verjuicer\App\Ledger\Batch\Batch;
use Verjuicer\App\Ledger\Batch\Batches;
use Verjuicer\App\Operations\Entry\DetailForm;
use Verjuicer\App\Operations\Entry\Draft;
use Verjuicer\App\Operations\Entry\EntryEcho;
use Verjuicer\App\Operations\Entry\EntryProblem;
use Verjuicer\App\Operations\Entry\FieldWords;
use Verjuicer\App\Operations\Entry\ImplausibleEntry;
use Verjuicer\App\Operations\Entry\RecordEntry;
use Verjuicer\App\Platform\Form\FormController;
use Verjuicer\App\Platform\Form\FormInput;
use Verjuicer\App\Platform\Problem\Problem;
use Verjuicer\App\Platform\Problem\RedisplaysForm;
use Verjuicer\App\Site\People\CurrentAccount;
use Verjuicer\App\Site\Site\EventTimeParser;
use Verjuicer\Core\Event\EventKinds;
use Verjuicer\Core\Event\Kinds\Action;
use Verjuicer\Core\Event\Kinds\Cook;
use Verjuicer\Core\Event\Kinds\Note;
use Verjuicer\Core\Event\Kinds\ProbeMoved;
use Verjuicer\Core\Event\Kinds\Reading;
use Verjuicer\Core\Food\NoteStep;

/** A step of a batch: one tap, or a tap and the little it asks for. */
final class StepController extends FormController implements RedisplaysForm
{
    public function __construct(
        private readonly Batches $batches,
        private readonly BatchPage $page,
        private readonly DetailForm $form,
        private readonly RecordEntry $entry,
        private readonly EntryEcho $echo,
        private readonly EventTimeParser $happened,
        private readonly CurrentAccount $account,
    ) {
    }

    #[Route('/batches/{id}/step', name: 'batch_step', requirements: ['id' => Requirement::UUID], methods: ['POST'])]
    public function step(string $id, Request $request): Response
    {
        $batch = $this->batches->get($id);
        $input = $this->read($request, 'step');
        $draft = $this->draft($batch, $input);
        $read = $draft === null ? [] : $this->readAsItGoesOn($batch, $input, $draft);
        if (!$input->isGood() || $draft === null) {
            return $this->page->respond($batch, $input);
        }
        [$kept] = $this->entry->keep($batch, $this->account->get(), $input->isOn('sure'), $draft, ...$read);
        $this->addFlash('kept', $this->echo->receipt($kept));

        return $this->redirectToRoute('batch', ['id' => $kept->batch->id->toRfc4122()], Response::HTTP_SEE_OTHER);
    }

    public function showAgain(Request $request, Problem $problem): Response
    {
        $batch = $this->batches->get($request->attributes->getString('id'));

        return $this->page->respond(
            $batch,
            $this->refused($request, $problem, ['reason']),
            $problem instanceof ImplausibleEntry ? $problem : null,
        );
    }

    /** @return list<Draft> the temperature it goes on the heat with, where it was read */
    private function readAsItGoesOn(Batch $batch, FormInput $input, Draft $cook): array
    {
        $temp = $cook->detail instanceof Cook ? $input->temperature('temp_on', $batch->site->unit) : null;
        if ($temp === null) {
            return [];
        }

        return [
            new Draft(
                Uuid::v5($cook->id, 'read'),
                new Reading($temp),
                $cook->at,
                $cook->reason,
                isSpotOpen: true,
                isPieceOpen: true,
            ),
        ];
    }

    private function draft(Batch $batch, FormInput $input): ?Draft
    {
        $id = $input->id();
        $when = $input->typed->has('when') ? $input->typed->getString('when') : $this->happened->now();
        $at = $input->read('when', fn () => $this->happened->read($when, $batch->site));
        $tap = $input->text('tap');
        if ($tap !== '') {
            [$kind, $tapped] = NextSteps::tapped($tap) ?? throw EntryProblem::notSent();
            $values = FieldWords::values($kind, $tapped->sets);
            if (isset($kind->fields['piece'])) {
                $values['piece'] = $input->whole('of_piece', 1, $batch->pieces);
            }
            $detail = $kind->make($values);
        } else {
            $kind = EventKinds::named($input->text('type')) ?? throw EntryProblem::notSent();
            $detail = $this->form->detail($kind, self::withWords($input), $batch->site, self::carried($input));
            $piece = $input->whole('of_piece', 1, $batch->pieces);
            if ($detail !== null && $piece !== null && isset($kind->fields['piece'])) {
                $detail = $kind->make(['piece' => $piece] + $kind->values($detail));
            }
        }
        $reason = $input->text('reason');
        if ($detail instanceof ProbeMoved && $detail->misplaced && $reason === '') {
            // What it read until now counts no more: as with a correction, why is said.
            $input->refuse('reason', 'entry.problem.no_reason');
        }

        return $detail === null || $at === null
            ? null
            : new Draft(
                $id,
                $detail,
                $at,
                $reason === '' ? null : $reason,
                isSpotOpen: isset($kind->fields['spot']) && $input->text('spot') === '',
                ofPiece: $kind->partsWays() ? $input->whole('of_piece', 1, $batch->pieces) : null,
                isPieceOpen: $input->text('piece').$input->text('of_piece') === '',
            );
    }

    /**
     * @return array<string, string> what goes along with a form and is typed by nobody: the finding that an action
     *     settles, what a probe did wrong
     */
    private static function carried(FormInput $input): array
    {
        $field = match ($input->text('type')) {
            EventKinds::of(Action::class)->name() => 'finding',
            EventKinds::of(ProbeMoved::class)->name() => 'misplaced',
            EventKinds::of(Note::class)->name() => $input->text('step') === NoteStep::ReminderDone->value ? 'step' : '',
            default => '',
        };

        return $field === '' || $input->text($field) === '' ? [] : [$field => $input->text($field)];
    }

    /** What was typed in place of the actions to choose from goes before them. */
    private static function withWords(FormInput $input): FormInput
    {
        if ($input->text('other') !== '') {
            $input->typed->set('text', $input->text('other'));
        }

        return $input;
    }
}
