<?php

declare(strict_types=1);

namespace Verjuicer\App\Operations\Batch;

use Symfony\Component\HttpFoundation\Request;
use Symfony\Component\HttpFoundation\Response;
use Symfony\Component\Routing\Attribute\Route;
use Symfony\Component\Routing\Requirement\Requirement;
use Symfony\Component\Security\Http\Attribute\IsGranted;
use Verjuicer\App\Catalogue\Product\Products;
use Verjuicer\App\Ledger\Batch\Batch;
use Verjuicer\App\Ledger\Batch\Batches;
use Verjuicer\App\Ledger\Batch\BatchFacts;
use Verjuicer\App\Ledger\Log\Ledger;
use Verjuicer\App\Platform\Form\FormController;
use Verjuicer\App\Platform\Form\FormInput;
use Verjuicer\App\Platform\Wording\MeasureFormatter;
use Verjuicer\App\Site\People\CurrentAccount;

/**
 * Puts right what was written down wrong when a batch was begun: product, pieces, weight, flags. It is judged anew;
 * what it said stays, with the reason.
 */
#[IsGranted('ROLE_CREW')]
#[Route('/batches/{id}/facts', requirements: ['id' => Requirement::UUID])]
final class FactsController extends FormController
{
    private const FLAGS = ['isStuffed' => 'stuffed', 'isWild' => 'wild', 'hasAdvisory' => 'advisory'];
    private const MOST_PIECES = 500;

    public function __construct(
        private readonly Batches $batches,
        private readonly BatchFacts $facts,
        private readonly Products $products,
        private readonly Ledger $ledger,
        private readonly CurrentAccount $account,
        private readonly MeasureFormatter $figures,
    ) {
    }

    #[Route('', name: 'facts', methods: ['GET'])]
    public function show(string $id): Response
    {
        $batch = $this->batches->get($id);
        $filled = [
            'product' => $this->products->named($batch->site, $batch->productName)?->id->toRfc4122() ?? '',
            'pieces' => (string) $batch->pieces,
            'weight' => $batch->rawGrams === null ? '' : $this->figures->weight($batch->rawGrams),
        ];
        foreach (self::FLAGS as $name => $field) {
            $filled[$field] = $batch->{$name} === true ? '1' : '';
        }

        return $this->again($batch, $this->blank($filled));
    }

    #[Route('', name: 'facts_keep', methods: ['POST'])]
    public function keep(string $id, Request $request): Response
    {
        $batch = $this->batches->get($id);
        $input = $this->read($request, 'facts');
        $uuid = $input->id();
        $reason = $input->text('reason', true);
        $facts = $this->changed($batch, $input);
        if (($facts['hasAdvisory'] ?? false) === true && !$batch->site->mayUndercook()) {
            $input->refuse('form', 'new.problem.advisory');
        }
        if ($input->isGood() && $facts === [] && !$this->facts->isKept($uuid, $batch)) {
            $input->refuse('form', 'facts.problem.nothing');
        }
        if (!$input->isGood()) {
            return $this->again($batch, $input);
        }
        $this->ledger->write($batch->site, function () use ($uuid, $batch, $facts, $reason): void {
            $this->facts->keep($uuid, $batch, $this->account->get(), $facts, $reason);
            $this->ledger->changed($batch);
        });

        return $this->kept('facts.kept', 'batch', ['id' => $id]);
    }

    /** @return array<string, string|int|bool|null> */
    private function changed(Batch $batch, FormInput $input): array
    {
        $product = $this->products->find($batch->site, $input->text('product'));
        $pairs = [
            'pieces' => [$batch->pieces, $input->whole('pieces', 1, self::MOST_PIECES, true)],
            'rawGrams' => [$batch->rawGrams, $input->grams('weight', known: $batch->rawGrams)],
        ];
        foreach (self::FLAGS as $name => $field) {
            $pairs[$name] = [$batch->{$name} === true, $input->isOn($field)];
        }
        if ($product !== null) {
            $pairs['productName'] = [$batch->productName, $product->name];
            $pairs['animal'] = [$batch->animal->value, $product->animal->value];
            $pairs['form'] = [$batch->form->value, $product->form->value];
            $pairs['integrity'] = [$batch->integrity->value, $product->integrity->value];
        }
        $changed = array_filter($pairs, static fn (array $pair): bool => $pair[0] !== $pair[1]);

        return array_map(static fn (array $pair): string|int|bool|null => $pair[1], $changed);
    }

    private function again(Batch $batch, FormInput $input): Response
    {
        return $this->page('operations/batch/facts.html.twig', $input, [
            'batch' => $batch,
            'products' => $this->products->of($batch->site),
        ]);
    }
}
