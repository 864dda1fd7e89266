<?php

declare(strict_types=1);

namespace Verjuicer\App\Batch;

use Doctrine\ORM\EntityManagerInterface;
use Symfony\Bundle\FrameworkBundle\Controller\AbstractController;
use Symfony\Component\HttpFoundation\HeaderUtils;
use Symfony\Component\HttpFoundation\JsonResponse;
use Symfony\Component\HttpFoundation\Request;
use Symfony\Component\HttpFoundation\Response;
use Symfony\Component\Routing\Attribute\Route;
use Symfony\Component\Routing\Requirement\Requirement;
use Symfony\Component\Uid\Uuid;
use Verjuicer\App\Account\CurrentAccount;
use Verjuicer\App\Entry\Entry;
use Verjuicer\App\Entry\EntryEcho;
use Verjuicer\App\Entry\EntryProblem;
use Verjuicer\App\Entry\Journal;
use Verjuicer\App\Record\EventConflict;
use Verjuicer\App\Record\Now;
use Verjuicer\App\Record\StoredRecords;
use Verjuicer\App\Wording\AssessmentJson;
use Verjuicer\App\Wording\Figures;
use Verjuicer\Core\Assess\Assessment;
use Verjuicer\Core\Assess\Assessor;
use Verjuicer\Core\Assess\Finding;
use Verjuicer\Core\Measure\MalformedTemperature;
use Verjuicer\Core\Measure\Temperature;
use Verjuicer\Core\Record\EventType;
use Verjuicer\Core\Record\Writer;
use Verjuicer\Core\Ruleset\RuleSetLibrary;

/** One batch: its picture, what the record shows, what is next, and all that was written down. */
#[Route('/batches/{id}', requirements: ['id' => Requirement::UUID])]
final class BatchController extends AbstractController
{
    public function __construct(
        private readonly EntityManagerInterface $entities,
        private readonly StoredRecords $records,
        private readonly RuleSetLibrary $ruleSets,
        private readonly Assessor $assessor,
        private readonly Journal $journal,
        private readonly EntryEcho $echo,
        private readonly Figures $figures,
        private readonly CurrentAccount $account,
        private readonly Now $now,
    ) {
    }

    #[Route('', name: 'batch', methods: ['GET'])]
    public function show(string $id): Response
    {
        return $this->page($this->batch($id));
    }

    /** The part of the page that changes, for the script that keeps it current. */
    #[Route('/live', name: 'batch_live', methods: ['GET'])]
    public function live(string $id): Response
    {
        $response = $this->render('batch/_live.html.twig', $this->view($this->batch($id)));
        $response->headers->set('Cache-Control', 'no-store, private');

        return $response;
    }

    /** The record in the open format, whole. */
    #[Route('/record.json', name: 'batch_record', methods: ['GET'])]
    public function record(string $id): Response
    {
        $batch = $this->batch($id);

        return new JsonResponse(Writer::write($this->records->of($batch)), json: true, headers: [
            'Content-Disposition' => HeaderUtils::makeDisposition(HeaderUtils::DISPOSITION_ATTACHMENT, $batch->code.'.json'),
        ]);
    }

    #[Route('/assessment.json', name: 'batch_assessment', methods: ['GET'])]
    public function assessment(string $id, AssessmentJson $json): Response
    {
        return new JsonResponse($json->of($this->assess($this->batch($id))));
    }

    /** A step: one tap, or a tap and the little it asks for. */
    #[Route('/step', name: 'batch_step', methods: ['POST'])]
    public function step(string $id, Request $request): Response
    {
        $batch = $this->batch($id);
        $form = $request->request;
        if (!$this->isCsrfTokenValid('step', $form->getString('_token'))) {
            return $this->page($batch, 'entry.problem.expired', [], Response::HTTP_FORBIDDEN);
        }
        $type = EventType::tryFrom($form->getString('type'));
        if ($type === null || !Uuid::isValid($form->getString('id'))) {
            return $this->page($batch, 'entry.problem.no_id', [], Response::HTTP_UNPROCESSABLE_ENTITY);
        }
        try {
            $entry = $this->journal->completed($batch, Entry::of($type, $this->members($form->all(), $batch), max(0, $form->getInt('minutes_ago')), $form->getString('reason') === '' ? null : $form->getString('reason')));
            $event = $this->journal->keep($batch, $this->account->get(), Uuid::fromString($form->getString('id')), $entry);
        } catch (EntryProblem $problem) {
            return $this->page($batch, $problem->key, $problem->values, Response::HTTP_UNPROCESSABLE_ENTITY);
        } catch (EventConflict) {
            return $this->page($batch, 'entry.problem.id_taken', [], Response::HTTP_CONFLICT);
        }
        $this->addFlash('kept', ['sentence' => $this->echo->of($batch, $entry), 'batch' => $batch->id->toRfc4122(), 'event' => $event->id]);

        return $this->redirectToRoute('batch', ['id' => $id], Response::HTTP_SEE_OTHER);
    }

    /** Takes an entry back, with a reason; it stays in the record, struck. */
    #[Route('/events/{event}/void', name: 'batch_void', requirements: ['event' => Requirement::UUID], methods: ['POST'])]
    public function void(string $id, string $event, Request $request): Response
    {
        $batch = $this->batch($id);
        $form = $request->request;
        if (!$this->isCsrfTokenValid('void', $form->getString('_token')) || !Uuid::isValid($form->getString('id'))) {
            return $this->page($batch, 'entry.problem.expired', [], Response::HTTP_FORBIDDEN);
        }
        $reason = trim($form->getString('reason'));
        if ($reason === '') {
            return $this->page($batch, 'entry.problem.no_reason', [], Response::HTTP_UNPROCESSABLE_ENTITY);
        }
        try {
            $this->journal->void($batch, $this->account->get(), Uuid::fromString($form->getString('id')), Uuid::fromString($event), $reason);
        } catch (EventConflict) {
            return $this->page($batch, 'entry.problem.id_taken', [], Response::HTTP_CONFLICT);
        }
        $this->addFlash('undone', '');
        $back = $form->getString('back');

        return $this->redirect($back === '/' ? $this->generateUrl('board') : $this->generateUrl('batch', ['id' => $id]), Response::HTTP_SEE_OTHER);
    }

    private function batch(string $id): Batch
    {
        $batch = $this->entities->find(Batch::class, Uuid::fromString($id));
        if ($batch === null || !$batch->site->id->equals($this->account->get()->site->id)) {
            throw $this->createNotFoundException();
        }

        return $batch;
    }

    private function assess(Batch $batch): Assessment
    {
        $record = $this->records->of($batch);

        return $this->assessor->assess($record, $this->ruleSets->get($record->rules), $this->now->instant());
    }

    /** @param array<string, string> $values */
    private function page(Batch $batch, ?string $problem = null, array $values = [], int $status = Response::HTTP_OK): Response
    {
        return $this->render('batch/batch.html.twig', $this->view($batch) + ['problem' => $problem, 'problem_values' => $values], new Response(status: $status));
    }

    /** @return array<string, mixed> */
    private function view(Batch $batch): array
    {
        $assessment = $this->assess($batch);
        $stage = $assessment->timeline->stage();

        return [
            'batch' => $batch,
            'site' => $batch->site,
            'assessment' => $assessment,
            'picture' => BatchPicture::of($assessment, $this->figures),
            'clock' => $assessment->clocks[0] ?? null,
            'judged' => self::worstFirst(array_filter($assessment->findings, static fn (Finding $finding): bool => $finding->isJudged())),
            'cautions' => array_values(array_filter($assessment->findings, static fn (Finding $finding): bool => !$finding->isJudged())),
            'stage' => $stage,
            'steps' => Step::after($stage?->type()),
            'log' => RecordLog::of($assessment->record),
            'entry_id' => Uuid::v7()->toRfc4122(),
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

    /**
     * The members of the open format from the fields of a step's form.
     *
     * @param array<string, mixed> $form
     *
     * @throws EntryProblem if a temperature is none
     */
    private function members(array $form, Batch $batch): \stdClass
    {
        $members = new \stdClass();
        foreach (['place', 'method', 'with', 'oven', 'for', 'plan', 'spot', 'text', 'finding'] as $name) {
            if (\is_string($form[$name] ?? null) && $form[$name] !== '') {
                $members->{$name} = $form[$name];
            }
        }
        foreach (['set', 'temp'] as $name) {
            if (\is_string($form[$name] ?? null) && trim($form[$name]) !== '') {
                try {
                    $temperature = Temperature::parse($form[$name], $batch->site->unit);
                } catch (MalformedTemperature) {
                    throw EntryProblem::notATemperature($form[$name]);
                }
                $members->{$name} = (object) [$temperature->unit->member() => $temperature->tenths / 10];
            }
        }
        if (\is_string($form['piece'] ?? null) && ctype_digit($form['piece'])) {
            $members->piece = (int) $form['piece'];
        }

        return $members;
    }
}
