<?php

declare(strict_types=1);

namespace Verjuicer\App\Operations\Portion;

use Symfony\Component\HttpFoundation\Request;
use Symfony\Component\HttpFoundation\Response;
use Symfony\Component\Routing\Attribute\Route;
use Symfony\Component\Routing\Requirement\Requirement;
use Symfony\Component\Security\Http\Attribute\IsGranted;
use Symfony\Component\Uid\Uuid;
use Verjuicer\App\Ledger\Batch\Batch;
use Verjuicer\App\Ledger\Batch\Batches;
use Verjuicer\App\Ledger\Batch\HeldPieces;
use Verjuicer\App\Ledger\Log\LastReadings;
use Verjuicer\App\Ledger\Opening\Portioning;
use Verjuicer\App\Platform\Form\FormController;
use Verjuicer\App\Platform\Form\FormInput;
use Verjuicer\App\Platform\Problem\Problem;
use Verjuicer\App\Platform\Problem\RedisplaysForm;
use Verjuicer\App\Site\People\CurrentAccount;
use Verjuicer\App\Site\Site\EventTimeParser;

/** Splits a batch into pans, packs and trays. The weights must add up; what is missing is asked for. */
#[IsGranted('ROLE_CREW')]
#[Route('/batches/{id}/divide', requirements: ['id' => Requirement::UUID])]
final class DivideController extends FormController implements RedisplaysForm
{
    private const MOST = 8;
    private const HIGHEST_TAG = 999;
    private const DEEPEST = 1000.0; // mm
    private const SHALLOWEST = 1.0;

    public function __construct(
        private readonly Batches $batches,
        private readonly Portions $portions,
        private readonly Portioning $portioning,
        private readonly HeldPieces $held,
        private readonly LastReadings $lastReadings,
        private readonly EventTimeParser $happened,
        private readonly CurrentAccount $account,
    ) {
    }

    #[Route('', name: 'divide', methods: ['GET'])]
    public function show(string $id): Response
    {
        $batch = $this->batches->get($id);
        $filled = ['when' => $this->happened->now()];
        foreach ($this->portioning->tags($batch, self::MOST) as $row => $tag) {
            $filled += [
                'tag'.$row => (string) $tag,
                'portion'.$row => Uuid::v7()->toRfc4122(),
            ];
        }

        return $this->again($this->blank($filled), $batch);
    }

    #[Route('', name: 'divide_keep', methods: ['POST'])]
    public function divide(string $id, Request $request): Response
    {
        $batch = $this->batches->get($id);
        $input = $this->read($request, 'divide');
        $division = $input->id();
        if (!$this->batches->isOpen($batch) && $this->batches->portionsOf($batch) === []) {
            $input->refuse('form', 'portion.problem.ended');
        }
        $at = $input->read('when', fn (string $given) => $this->happened->read($given, $batch->site));
        $rows = $this->rows($input);
        $total = $input->grams('total', true);
        $left = $input->typed->getString('left') === '0' ? 0 : $input->grams('left') ?? 0;
        $reason = $input->text('reason');
        $sum = array_sum(array_map(static fn (PortionRow $row): int => $row->grams, $rows)) + $left;
        $lost = $total === null ? 0 : $total - $sum;
        if ($rows === []) {
            $input->refuse('grams0', 'portion.problem.none');
        }
        if ($lost < 0) {
            $input->refuse('total', 'portion.problem.too_much');
        } elseif ($lost > 0 && $reason === '') {
            $input->refuse('reason', 'portion.problem.missing');
        }
        if (!$input->isGood() || $at === null) {
            return $this->again($input, $batch, max(0, $lost));
        }
        $this->portions->divide($division, $batch, $this->account->get(), $at, $rows, $left, $lost, $reason);

        return $this->kept('portion.kept', 'batch', ['id' => $id]);
    }

    /** Lets whole pieces go their own ways: each under the tag chosen for it, some together. */
    #[Route('/pieces', name: 'divide_pieces', methods: ['POST'])]
    public function pieces(string $id, Request $request): Response
    {
        $batch = $this->batches->get($id);
        $input = $this->read($request, 'divide');
        $division = $input->id();
        $at = $input->read('when', fn (string $given) => $this->happened->read($given, $batch->site));
        $ways = [];
        foreach ($this->held->numbers($batch) as $piece) {
            $tag = $input->whole('piece'.$piece, 1, self::HIGHEST_TAG);
            if ($tag !== null) {
                $ways[$tag][] = $piece;
            }
        }
        if ($input->isGood() && $ways === []) {
            $input->refuse('form', 'portion.problem.no_piece');
        }
        if (!$input->isGood() || $at === null) {
            return $this->again($input, $batch);
        }
        $this->portions->part($division, $batch, $this->account->get(), $at, $ways);

        return $this->kept('portion.kept', 'batch', ['id' => $id]);
    }

    public function showAgain(Request $request, Problem $problem): Response
    {
        $input = $this->refused($request, $problem);
        if (isset($input->problems['tag'])) {
            $input->refuse('tag0', $problem->key, $problem->values);
        }

        return $this->again($input, $this->batches->get($request->attributes->getString('id')));
    }

    /** @return list<PortionRow> */
    private function rows(FormInput $input): array
    {
        $rows = [];
        for ($row = 0; $row < self::MOST; ++$row) {
            $grams = $input->grams('grams'.$row);
            if ($grams === null) {
                continue;
            }
            $tag = $input->whole('tag'.$row, 1, self::HIGHEST_TAG, true) ?? 0;
            $depth = $input->millimeters('depth'.$row, self::SHALLOWEST, self::DEEPEST, 'portion.problem.depth');
            $container = $input->text('container'.$row, true, 40);
            $depthMm = $depth === null ? null : (int) round($depth);
            $rows[] = new PortionRow($input->id('portion'.$row), $tag, $grams, $container, $depthMm);
        }
        $tags = array_map(static fn (PortionRow $row): int => $row->tag, $rows);
        if (\count(array_unique($tags)) < \count($rows)) {
            $input->refuse('tag0', 'portion.problem.same_tag');
        }

        return $rows;
    }

    private function again(FormInput $input, Batch $batch, int $missing = 0): Response
    {
        return $this->page('operations/portion/divide.html.twig', $input, [
            'batch' => $batch,
            'rows' => range(0, self::MOST - 1),
            'held' => $this->lastReadings->isOneMass($batch) ? [] : $this->held->numbers($batch),
            'tags' => $this->portioning->tags($batch, self::MOST),
            'missing' => $missing,
        ]);
    }
}
