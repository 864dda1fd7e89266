<?php

declare(strict_types=1);

namespace Verjuicer\App\Operations\Batch;

use Symfony\Component\HttpFoundation\Request;
use Symfony\Component\HttpFoundation\Response;
use Symfony\Component\Routing\Attribute\Route;
use Symfony\Component\Security\Http\Attribute\IsGranted;
use Symfony\Component\Uid\Uuid;
use Verjuicer\App\Catalogue\Pit\Pits;
use Verjuicer\App\Catalogue\Product\Product;
use Verjuicer\App\Catalogue\Product\Products;
use Verjuicer\App\Catalogue\Template\CookTemplates;
use Verjuicer\App\Catalogue\Thermometer\Thermometers;
use Verjuicer\App\Ledger\Batch\Batch;
use Verjuicer\App\Ledger\Batch\Batches;
use Verjuicer\App\Ledger\Batch\BatchPlan;
use Verjuicer\App\Ledger\Log\Ledger;
use Verjuicer\App\Ledger\Lot\Lots;
use Verjuicer\App\Ledger\Opening\NewBatches;
use Verjuicer\App\Operations\Entry\Draft;
use Verjuicer\App\Operations\Entry\RecordEntry;
use Verjuicer\App\Operations\Entry\ReminderLine;
use Verjuicer\App\Platform\Form\FormController;
use Verjuicer\App\Platform\Form\FormInput;
use Verjuicer\App\Platform\Problem\Problem;
use Verjuicer\App\Platform\Problem\RedisplaysForm;
use Verjuicer\App\Site\People\CurrentAccount;
use Verjuicer\App\Site\Site\EventTimeParser;
use Verjuicer\App\Site\Site\WallTime;
use Verjuicer\Core\Event\Detail;
use Verjuicer\Core\Event\Kinds\Cook;
use Verjuicer\Core\Event\Kinds\Inject;
use Verjuicer\Core\Event\Kinds\Note;
use Verjuicer\Core\Event\Kinds\Prep;
use Verjuicer\Core\Event\Kinds\Reading;
use Verjuicer\Core\Food\Oven;
use Verjuicer\Core\Measure\Instant;

/** Begins a batch: from a lot, so that weight and identity are not typed twice, or from the list of products. */
#[IsGranted('ROLE_CREW')]
#[Route('/batches/new')]
final class NewBatchController extends FormController implements RedisplaysForm
{
    private const NO_LOT = 'no_lot';
    private const HIGHEST_TAG = 999;
    private const MOST_PIECES = 500;

    public function __construct(
        private readonly Products $products,
        private readonly Lots $lots,
        private readonly Pits $pits,
        private readonly NewBatches $newBatches,
        private readonly Batches $batches,
        private readonly Thermometers $thermometers,
        private readonly CookTemplates $templates,
        private readonly ReminderLine $reminder,
        private readonly Ledger $ledger,
        private readonly RecordEntry $entry,
        private readonly EventTimeParser $happened,
        private readonly CurrentAccount $account,
    ) {
    }

    #[Route('', name: 'batch_new', methods: ['GET'])]
    public function show(Request $request): Response
    {
        $site = $this->account->get()->site;
        $lot = $this->lots->find($site, $request->query->getString('lot'));

        return $this->again(
            $this->blank([
                'tag' => (string) ($this->batches->freeTags($site, 1, 1)[0] ?? ''),
                'lot' => $lot === null ? '' : $lot->lot->id->toRfc4122(),
                'pieces' => (string) ($lot->piecesLeft ?? 1),
                'start' => 'prep',
                'when' => $this->happened->now(),
            ]),
        );
    }

    #[Route('', name: 'batch_begin', methods: ['POST'])]
    public function begin(Request $request): Response
    {
        $input = $this->read($request, 'new_batch');
        $site = $this->account->get()->site;
        $id = $input->id();
        $hasLot = !\in_array($input->text('lot'), ['', self::NO_LOT], true);
        $lot = $hasLot ? $this->lots->find($site, $input->text('lot'))?->lot : null;
        if ($lot === null && $hasLot) {
            $input->refuse('lot', 'new.problem.lot');
        }
        if ($input->text('pit') !== '' && $this->pits->named($site, $input->text('pit')) === null) {
            $input->refuse('pit', 'new.problem.pit');
        }
        $label = $input->text('thermometer');
        if ($label !== '' && !\in_array($label, $this->thermometers->labels($site), true)) {
            $input->refuse('thermometer', 'new.problem.thermometer');
        }
        if ($input->text('template') !== '' && $this->templates->find($site, $input->text('template')) === null) {
            $input->refuse('template', 'new.problem.template');
        }
        $reason = $input->text('reason');
        $product = $lot->product ?? $this->products->find($site, $input->text('product'));
        if ($product === null) {
            $input->refuse('product', 'new.problem.product');
        }
        $tag = $input->whole('tag', 1, self::HIGHEST_TAG, true);
        $pieces = $input->whole('pieces', 1, self::MOST_PIECES, true);
        $grams = $input->grams('weight') ?? $lot?->gramsOfOne();
        $hasAdvisory = $input->isOn('advisory');
        if ($hasAdvisory && !$site->mayUndercook()) {
            $input->refuse('form', 'new.problem.advisory');
        }
        $at = $input->read('when', fn (string $given): Instant => $this->happened->read($given, $site));
        $first = $this->first($input, $product);
        if (!$input->isGood() || $product === null || $tag === null || $pieces === null || $at === null) {
            return $this->again($input);
        }
        $plan = new BatchPlan(
            $product,
            $tag,
            $pieces,
            $grams,
            $input->isOn('stuffed'),
            $input->isOn('wild'),
            $hasAdvisory,
        );
        $batch = $this->ledger->write($site, function () use ($id, $plan, $lot, $at, $first, $input, $reason): Batch {
            $by = $this->account->get();
            $batch = $this->newBatches->begin($id, $by, $plan, $lot, $at);
            $drafts = [];
            foreach ($first as $name => $detail) {
                $isSpotOpen = $detail instanceof Reading && $input->text('spot') === '';
                $why = $detail instanceof Reading && $reason !== '' ? $reason : null;
                $drafts[] = new Draft(Uuid::v5($id, (string) $name), $detail, $at, $why, isSpotOpen: $isSpotOpen);
            }
            $this->entry->keep($batch, $by, $input->isOn('sure'), ...$drafts);

            return $batch;
        });

        return $this->redirectToRoute('batch', ['id' => $batch->id->toRfc4122()], Response::HTTP_SEE_OTHER);
    }

    public function showAgain(Request $request, Problem $problem): Response
    {
        return $this->again($this->refused($request, $problem, ['reason']));
    }

    /** @return list<Detail> what happened as it began */
    private function first(FormInput $input, ?Product $product): array
    {
        $site = $this->account->get()->site;
        $pit = $input->text('pit');
        $oven = $input->choice('oven', Oven::class);
        $set = $input->temperature('set', $site->unit);
        $temp = $input->temperature('temp', $site->unit);
        $thermometer = $input->text('thermometer');
        $spot = mb_strtolower($input->text('spot', most: 40));
        $readyBy = $this->readyBy($input);
        $isOnHeat = $input->text('start') === 'cook';

        return array_values(
            array_filter(
                [
                    $isOnHeat ? new Cook($oven, $set, $pit === '' ? null : $pit) : new Prep(),
                    $input->isOn('injected') ? new Inject() : null,
                    $temp === null
                        ? null
                        : new Reading(
                            $temp,
                            spot: $spot === '' ? $product?->firstSpot() ?? Product::SPOT : $spot,
                            thermometer: $thermometer === '' ? null : $thermometer,
                        ),
                    $readyBy === null ? null : new Note(readyBy: $readyBy),
                    ...array_map(
                        fn (string $line): Note => $this->reminder->parse($line, $site->unit),
                        $this->templates->find($site, $input->text('template'))->lines ?? [],
                    ),
                ],
                static fn (?Detail $detail): bool => $detail !== null,
            ),
        );
    }

    private function readyBy(FormInput $input): ?Instant
    {
        $site = $this->account->get()->site;
        $given = $input->wallMinute('ready_by');
        $now = $this->happened->read($this->happened->now(), $site);
        $at = $given === '' ? null : WallTime::parse($given, $site->zone(), $now);
        if ($given !== '' && ($at === null || !$at->isAfter($now))) {
            $input->refuse('ready_by', 'new.problem.ready_by');
        }

        return $at;
    }

    private function again(FormInput $input): Response
    {
        $site = $this->account->get()->site;

        return $this->page('operations/batch/new.html.twig', $input, [
            'site' => $site,
            'products' => $this->products->of($site),
            'lots' => $this->lots->available($site),
            'pits' => $this->pits->of($site),
            'thermometers' => $this->thermometers->labels($site),
            'ovens' => Oven::cases(),
            'templates' => $this->templates->of($site),
            'tags' => $this->batches->tagsInUse($site),
        ]);
    }
}
