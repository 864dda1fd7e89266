<?php

declare(strict_types=1);

namespace Verjuicer\App\Operations\Entry;

use Symfony\Component\HttpFoundation\JsonResponse;
use Symfony\Component\HttpFoundation\Request;
use Symfony\Component\HttpFoundation\Response;
use Symfony\Component\Routing\Attribute\Route;
use Symfony\Component\Uid\Uuid;
use Symfony\Contracts\Translation\TranslatorInterface;
use Verjuicer\App\Catalogue\Recipe\RecipeKind;
use Verjuicer\App\Catalogue\Recipe\Recipes;
use Verjuicer\App\Ledger\Batch\Batch;
use Verjuicer\App\Ledger\Batch\Batches;
use Verjuicer\App\Platform\Form\FormController;
use Verjuicer\App\Platform\Form\FormInput;
use Verjuicer\App\Platform\Problem\Problem;
use Verjuicer\App\Platform\Problem\RedisplaysForm;
use Verjuicer\App\Site\People\CurrentAccount;
use Verjuicer\Core\Event\Kinds\Cook;
use Verjuicer\Core\Event\Kinds\Inject;
use Verjuicer\Core\Event\Kinds\Reading;
use Verjuicer\Core\Event\Kinds\Sauce;
use Verjuicer\Core\Event\Kinds\Spritz;
use Verjuicer\Core\Event\Kinds\Wrap;

/** The log line: one short entry, told back in plain words before it is kept. */
final class EntryController extends FormController implements RedisplaysForm
{
    public function __construct(
        private readonly EntryLine $line,
        private readonly RecordEntry $entry,
        private readonly EntryEcho $echo,
        private readonly Batches $batches,
        private readonly Recipes $recipes,
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
        $only = $this->onlyTag($input->typed->getString('line'));
        if ($only !== null) {
            return $this->redirectToRoute('batch', ['id' => $only->id->toRfc4122()], Response::HTTP_SEE_OTHER);
        }
        [$batch, $draft] = $this->understood($input->typed->getString('line'), $id, $input->text('new_spot'));
        $free = $input->text('free', most: 40);
        if ($free !== '') {
            $this->remember($batch, $draft, $free, $input);
        }
        [$kept] = $this->entry->keep($batch, $this->account->get(), $input->isOn('sure'), $draft);
        $this->addFlash('kept', $this->echo->receipt($kept));

        return $this->redirect($this->safeBack($input->text('back')), Response::HTTP_SEE_OTHER);
    }

    /** What a line would record, told back while it is typed. */
    #[Route('/log/echo', name: 'log_echo', methods: ['GET'])]
    public function echo(Request $request): JsonResponse
    {
        $line = $request->query->getString('line');
        try {
            [$batch, $draft] = $this->understood($line, Uuid::v7(), $request->query->getString('new_spot'));
            $answer = ['ok' => true, 'sentence' => $this->entry->told($batch, $draft), 'offers' => [], 'spot' => ''];
        } catch (Problem $problem) {
            $answer = [
                'ok' => false,
                'sentence' => $problem->sentence()->trans($this->translator),
                'offers' => self::offers($line, $problem),
                'spot' => $problem instanceof EntryProblem && $problem->mayBeSpot ? $problem->given : '',
            ];
        }

        return new JsonResponse($answer, headers: ['Cache-Control' => 'no-store, private']);
    }

    public function showAgain(Request $request, Problem $problem): Response
    {
        return $this->again($this->refused($request, $problem), $problem);
    }

    /**
     * @return array{Batch, Draft}
     *
     * @throws Problem if the line cannot be kept as it stands
     */
    private function understood(string $line, Uuid $id, string $newSpot): array
    {
        $site = $this->account->get()->site;
        $typed = $this->line->parse($line, $site, $id);
        $spot = $typed->draft->detail instanceof Reading ? $typed->draft->detail->spot : null;
        $draft = $spot !== null && $spot === $newSpot ? $typed->draft->atNewSpot() : $typed->draft;

        return [$this->batches->tagged($site, $typed->tag) ?? throw EntryProblem::unknownTag($typed->tag), $draft];
    }

    /** A tag and nothing else opens its batch. */
    private function onlyTag(string $line): ?Batch
    {
        $isOnly = preg_match('/^\s*(\d{1,3})\s*$/', $line, $tag) === 1;

        return $isOnly ? $this->batches->tagged($this->account->get()->site, (int) $tag[1]) : null;
    }

    /** Free words without a recipe: with the allergens that were ticked, they are known from then on. */
    private function remember(Batch $batch, Draft $draft, string $name, FormInput $input): void
    {
        $all = $batch->site->allergenList->allergens();
        $ticked = array_values(array_filter($all, static fn (string $one): bool => $input->isOn('allergen_'.$one)));
        $kind = match (true) {
            $draft->detail instanceof Inject => RecipeKind::Brine,
            $draft->detail instanceof Spritz => RecipeKind::Spritz,
            $draft->detail instanceof Sauce,
            $draft->detail instanceof Wrap,
            $draft->detail instanceof Cook => RecipeKind::Sauce,
            default => RecipeKind::Rub,
        };
        $this->recipes->remember($batch->site, $name, $kind, $ticked);
    }

    /**
     * @return list<array{word: string, line: string}> the line with a known word in place of what was not understood
     */
    private static function offers(string $line, Problem $problem): array
    {
        if (!($problem instanceof EntryProblem) || $problem->given === '') {
            return [];
        }
        $given = '/'.str_replace(' ', '\s+', preg_quote($problem->given, '/')).'/iu';

        return array_map(
            static fn (string $word): array => [
                'word' => $word,
                'line' => preg_replace($given, addcslashes($word, '\\$'), $line, 1) ?? $line,
            ],
            $problem->nearest,
        );
    }

    private function again(FormInput $input, ?Problem $problem = null): Response
    {
        $doubtful = $problem instanceof ImplausibleEntry ? $problem : null;
        // A line that was only asked about keeps its id: if it was kept all the same, it is kept once.
        $id = $doubtful === null ? Uuid::v7()->toRfc4122() : $input->typed->getString('id');

        return $this->page('operations/entry/entry.html.twig', $input, [
            'site' => $this->account->get()->site,
            'line' => trim($input->typed->getString('line')),
            'back' => $this->safeBack($input->typed->getString('back')),
            'entry_id' => $id,
            'doubts' => $doubtful->doubts ?? [],
            'sentence' => $doubtful?->sentence,
            'offers' => $problem === null ? [] : self::offers(trim($input->typed->getString('line')), $problem),
            'new_spot' => $problem instanceof EntryProblem && $problem->mayBeSpot ? $problem->given : '',
            'free' => $problem instanceof EntryProblem && $problem->mayBeRecipe ? $problem->given : '',
            'allergens' => $this->account->get()->site->allergenList->allergens(),
            'kept_spot' => $input->typed->getString('new_spot'),
            // What is asked comes first; without a question the keypad is ready.
            'is_asked' => $problem !== null || $input->problems !== [],
        ]);
    }

    /** Back to the page the entry came from, and nowhere else. */
    private function safeBack(string $back): string
    {
        return preg_match('#^/(batches/[0-9a-f-]{36})?$#D', $back) === 1 ? $back : $this->generateUrl('board');
    }
}
