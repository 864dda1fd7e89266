<?php

declare(strict_types=1);

namespace Verjuicer\App\Work\Entry;

use Symfony\Component\HttpFoundation\JsonResponse;
use Symfony\Component\HttpFoundation\Request;
use Symfony\Component\HttpFoundation\Response;
use Symfony\Component\Routing\Attribute\Route;
use Symfony\Component\Uid\Uuid;
use Symfony\Contracts\Translation\TranslatorInterface;
use Verjuicer\App\Ledger\Batch\Batch;
use Verjuicer\App\Ledger\Batch\Batches;
use Verjuicer\App\Platform\Form\FormController;
use Verjuicer\App\Platform\Form\FormInput;
use Verjuicer\App\Platform\Problem\Problem;
use Verjuicer\App\Platform\Problem\ShowsAgain;
use Verjuicer\App\Site\People\CurrentAccount;

/** The log line: one short entry, told back in plain words before it is kept. */
final class EntryController extends FormController implements ShowsAgain
{
    public function __construct(
        private readonly EntryLine $line,
        private readonly RecordEntry $entry,
        private readonly EntryEcho $echo,
        private readonly Batches $batches,
        private readonly CurrentAccount $account,
        private readonly TranslatorInterface $translator,
    ) {
    }

    /** The page of the keypad, which is also where a line comes back to that could not be kept. */
    #[Route('/log', name: 'log', methods: ['GET'])]
    public function show(Request $request): Response
    {
        $filled = ['line' => $request->query->getString('line'), 'back' => $request->query->getString('back')];

        return $this->again($this->blank($filled));
    }

    #[Route('/log', name: 'log_keep', methods: ['POST'])]
    public function keep(Request $request): Response
    {
        $input = $this->read($request, 'log');
        $id = $input->id();
        if (!$input->isGood()) {
            return $this->again($input);
        }
        [$batch, $draft] = $this->understood($input->typed->getString('line'), $id);
        [$kept] = $this->entry->keep($batch, $this->account->get(), $input->isOn('sure'), $draft);
        $this->addFlash('kept', $this->echo->receipt($batch, $kept));

        return $this->redirect($this->safeBack($input->text('back')), Response::HTTP_SEE_OTHER);
    }

    /** What a line would record, told back while it is typed. */
    #[Route('/log/echo', name: 'log_echo', methods: ['GET'])]
    public function echo(Request $request): JsonResponse
    {
        try {
            [$batch, $draft] = $this->understood($request->query->getString('line'), Uuid::v7());
            [$completed] = $this->entry->completed($batch, $draft);
            $answer = ['ok' => true, 'sentence' => $this->echo->of($batch, $completed)];
        } catch (Problem $problem) {
            $answer = ['ok' => false, 'sentence' => $problem->sentence()->trans($this->translator)];
        }

        return new JsonResponse($answer, headers: ['Cache-Control' => 'no-store, private']);
    }

    public function showAgain(Request $request, Problem $problem): Response
    {
        return $this->again($this->refused($request, $problem), $problem instanceof Doubtful ? $problem : null);
    }

    /**
     * @return array{Batch, Draft}
     *
     * @throws Problem if the line cannot be kept as it stands
     */
    private function understood(string $line, Uuid $id): array
    {
        $site = $this->account->get()->site;
        $typed = $this->line->parse($line, $site, $id);

        return [$this->batches->tagged($site, $typed->tag) ?? throw EntryProblem::unknownTag($typed->tag), $typed->draft];
    }

    private function again(FormInput $input, ?Doubtful $doubtful = null): Response
    {
        // A line that was only asked about keeps its id: if it was kept all the same, it is kept once.
        $id = $doubtful === null ? Uuid::v7()->toRfc4122() : $input->typed->getString('id');

        return $this->page('work/entry/entry.html.twig', $input, [
            'site' => $this->account->get()->site,
            'line' => trim($input->typed->getString('line')),
            'back' => $this->safeBack($input->typed->getString('back')),
            'entry_id' => $id,
            'problem' => $doubtful === null ? array_values($input->problems)[0] ?? null : null,
            'doubts' => $doubtful->doubts ?? [],
            'sentence' => $doubtful?->sentence,
        ]);
    }

    /** Back to the page the entry came from, and nowhere else. */
    private function safeBack(string $back): string
    {
        return preg_match('#^/(batches/[0-9a-f-]{36})?$#D', $back) === 1 ? $back : $this->generateUrl('board');
    }
}
