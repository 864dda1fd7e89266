<?php

declare(strict_types=1);

namespace Verjuicer\App\Work\Entry;

use Symfony\Bundle\FrameworkBundle\Controller\AbstractController;
use Symfony\Component\HttpFoundation\JsonResponse;
use Symfony\Component\HttpFoundation\Request;
use Symfony\Component\HttpFoundation\Response;
use Symfony\Component\Routing\Attribute\Route;
use Symfony\Component\Uid\Uuid;
use Symfony\Contracts\Translation\TranslatorInterface;
use Verjuicer\App\Catalogue\Thermometer\Thermometers;
use Verjuicer\App\Ledger\Batch\Batch;
use Verjuicer\App\Ledger\Log\EventConflict;
use Verjuicer\App\Projection\Lane\BoardLanes;
use Verjuicer\App\Site\People\CurrentAccount;

/** The log line: one short entry, told back in plain words before it is kept. */
final class EntryController extends AbstractController
{
    public function __construct(
        private readonly Journal $journal,
        private readonly EntryEcho $echo,
        private readonly BoardLanes $lanes,
        private readonly Thermometers $thermometers,
        private readonly CurrentAccount $account,
        private readonly TranslatorInterface $translator,
    ) {
    }

    /** The page of the keypad, which is also where a line comes back to that could not be kept. */
    #[Route('/log', name: 'log', methods: ['GET'])]
    public function page(Request $request): Response
    {
        return $this->entryPage($request->query->getString('line'), $request->query->getString('back'));
    }

    #[Route('/log', name: 'log_keep', methods: ['POST'])]
    public function keep(Request $request): Response
    {
        $form = $request->request;
        $line = trim($form->getString('line'));
        $back = $form->getString('back');
        if (!$this->isCsrfTokenValid('log', $form->getString('_token'))) {
            return $this->entryPage($line, $back, 'entry.problem.expired', [], Response::HTTP_FORBIDDEN);
        }
        if (!Uuid::isValid($form->getString('id'))) {
            return $this->entryPage($line, $back, 'entry.problem.no_id', [], Response::HTTP_UNPROCESSABLE_ENTITY);
        }
        $id = Uuid::fromString($form->getString('id'));
        try {
            [$batch, $entry] = $this->understood($line);
            $doubts = $form->getBoolean('sure') ? [] : $this->journal->doubts($batch, $entry);
            if ($doubts !== []) {
                return $this->entryPage($line, $back, null, [], Response::HTTP_UNPROCESSABLE_ENTITY, $doubts, $id);
            }
            $event = $this->journal->keep($batch, $this->account->get(), $id, $entry);
        } catch (EntryProblem $problem) {
            return $this->entryPage($line, $back, $problem->key, $problem->values, Response::HTTP_UNPROCESSABLE_ENTITY);
        } catch (EventConflict $conflict) {
            return $this->entryPage($line, $back, $conflict->key, [], Response::HTTP_CONFLICT);
        }
        $this->addFlash('kept', ['sentence' => $this->echo->of($batch, $entry), 'batch' => $batch->id->toRfc4122(), 'event' => $event->id]);

        return $this->redirect($this->safeBack($back), Response::HTTP_SEE_OTHER);
    }

    /** What a line would record, told back while it is typed. */
    #[Route('/log/echo', name: 'log_echo', methods: ['GET'])]
    public function echo(Request $request): JsonResponse
    {
        try {
            [$batch, $entry] = $this->understood($request->query->getString('line'));
            $answer = ['ok' => true, 'sentence' => $this->echo->of($batch, $entry)];
        } catch (EntryProblem $problem) {
            $answer = ['ok' => false, 'sentence' => $this->translator->trans($problem->key, $problem->values)];
        }

        return new JsonResponse($answer, headers: ['Cache-Control' => 'no-store, private']);
    }

    /**
     * @return array{Batch, Entry}
     *
     * @throws EntryProblem if the line cannot be kept as it stands
     */
    private function understood(string $line): array
    {
        $site = $this->account->get()->site;
        $parsed = EntryLine::parse($line, $site->unit, $this->thermometers->labels($site));
        $batch = $this->lanes->batchByTag($site, $parsed->tag) ?? throw EntryProblem::unknownTag($parsed->tag);

        return [$batch, $this->journal->completed($batch, $parsed->entry)];
    }

    /**
     * @param array<string, string>               $values
     * @param list<\Verjuicer\Core\Ruleset\Doubt> $doubts
     */
    private function entryPage(string $line, string $back, ?string $problem = null, array $values = [], int $status = Response::HTTP_OK, array $doubts = [], ?Uuid $id = null): Response
    {
        $site = $this->account->get()->site;
        $sentence = null;
        if ($doubts !== []) {
            [$batch, $entry] = $this->understood($line);
            $sentence = $this->echo->of($batch, $entry);
        }

        return $this->render('entry/entry.html.twig', [
            'site' => $site,
            'line' => $line,
            'back' => $this->safeBack($back),
            'entry_id' => ($id ?? Uuid::v7())->toRfc4122(),
            'problem' => $problem,
            'problem_values' => $values,
            'doubts' => $doubts,
            'sentence' => $sentence,
        ], new Response(status: $status));
    }

    /** Back to the page the entry came from, and nowhere else. */
    private function safeBack(string $back): string
    {
        return preg_match('#^/(batches/[0-9a-f-]{36})?$#D', $back) === 1 ? $back : $this->generateUrl('board');
    }
}
