<?php

declare(strict_types=1);

namespace Verjuicer\App\Work\Portion;

use Symfony\Component\HttpFoundation\Request;
use Symfony\Component\HttpFoundation\Response;
use Symfony\Component\Routing\Attribute\Route;
use Symfony\Component\Routing\Requirement\Requirement;
use Symfony\Component\Security\Http\Attribute\IsGranted;
use Symfony\Component\Uid\Uuid;
use Verjuicer\App\Ledger\Batch\Batch;
use Verjuicer\App\Ledger\Batch\SiteBatches;
use Verjuicer\App\Ledger\Opening\TagInUse;
use Verjuicer\App\Platform\Form\FormController;
use Verjuicer\App\Platform\Form\FormInput;
use Verjuicer\App\Platform\Now;
use Verjuicer\App\Projection\Lane\BoardLanes;
use Verjuicer\App\Site\People\CurrentAccount;

/** Splits a batch into pans, packs and trays. The weights must add up; what is missing is asked for. */
#[IsGranted('ROLE_CREW')]
#[Route('/batches/{id}/divide', requirements: ['id' => Requirement::UUID])]
final class DivideController extends FormController
{
    private const MOST = 8;
    private const HIGHEST_TAG = 999;
    private const DEEPEST_CM = 100;
    private const SHALLOWEST_CM = 0.1;

    public function __construct(private readonly SiteBatches $batches, private readonly Portions $portions, private readonly BoardLanes $lanes, private readonly CurrentAccount $account, private readonly Now $now)
    {
    }

    #[Route('', name: 'divide', methods: ['GET'])]
    public function form(string $id): Response
    {
        $batch = $this->batches->get($id);
        $filled = [];
        foreach ($this->freeTags($batch) as $row => $tag) {
            $filled += ['tag'.$row => (string) $tag, 'portion'.$row => Uuid::v7()->toRfc4122(), 'grams'.$row.'_unit' => 'kg'];
        }

        return $this->show($this->blank($filled), $batch);
    }

    #[Route('', name: 'divide_keep', methods: ['POST'])]
    public function divide(string $id, Request $request): Response
    {
        $batch = $this->batches->get($id);
        $input = $this->read($request, 'divide');
        $division = $input->id();
        if ($this->lanes->of($batch, $this->now->instant())->hasEnded && $this->portions->of($batch) === []) {
            $input->refuse('form', 'portion.problem.ended');
        }
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
        if (!$input->isGood()) {
            return $this->show($input, $batch, max(0, $lost));
        }
        try {
            $this->portions->divide($division, $batch, $this->account->get(), $this->now->instant(), $rows, $left, $lost, $reason);
        } catch (TagInUse) {
            $input->refuse('tag0', 'new.problem.tag_in_use');

            return $this->show($input, $batch);
        }

        return $this->kept('portion.kept', 'batch', ['id' => $id]);
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
            $depth = $input->number('depth'.$row, most: self::DEEPEST_CM);
            $container = $input->text('container'.$row, true, 40);
            if ($depth !== null && $depth < self::SHALLOWEST_CM) {
                $input->refuse('depth'.$row, 'portion.problem.depth');
            }
            $rows[] = new PortionRow($input->id('portion'.$row), $tag, $grams, $container, $depth === null ? null : (int) round(10 * $depth));
        }
        if (\count(array_unique(array_map(static fn (PortionRow $row): int => $row->tag, $rows))) < \count($rows)) {
            $input->refuse('tag0', 'portion.problem.same_tag');
        }

        return $rows;
    }

    private function show(FormInput $input, Batch $batch, int $missing = 0): Response
    {
        return $this->page('portion/divide.html.twig', $input, ['batch' => $batch, 'rows' => range(0, self::MOST - 1), 'missing' => $missing]);
    }

    /** @return list<int> */
    private function freeTags(Batch $batch): array
    {
        $inUse = array_fill_keys($this->lanes->tagsInUse($batch->site), true);
        $free = [];
        for ($tag = $batch->tag < 100 ? 10 * $batch->tag + 1 : 1; \count($free) < self::MOST && $tag <= self::HIGHEST_TAG; ++$tag) {
            if (!isset($inUse[$tag])) {
                $free[] = $tag;
            }
        }

        return $free;
    }
}
