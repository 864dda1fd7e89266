<?php

declare(strict_types=1);

namespace Verjuicer\App\Work\Batch;

use Symfony\Component\HttpFoundation\Request;
use Symfony\Component\HttpFoundation\Response;
use Symfony\Component\Routing\Attribute\Route;
use Symfony\Component\Security\Http\Attribute\IsGranted;
use Symfony\Component\Uid\Uuid;
use Verjuicer\App\Catalogue\Pit\Pits;
use Verjuicer\App\Catalogue\Product\Products;
use Verjuicer\App\Catalogue\Thermometer\Thermometers;
use Verjuicer\App\Ledger\Batch\BatchPlan;
use Verjuicer\App\Ledger\Lot\Lots;
use Verjuicer\App\Ledger\Lot\TooLittleLeft;
use Verjuicer\App\Ledger\Opening\NewBatches;
use Verjuicer\App\Ledger\Opening\TagInUse;
use Verjuicer\App\Platform\Form\FormController;
use Verjuicer\App\Platform\Form\FormInput;
use Verjuicer\App\Platform\Now;
use Verjuicer\App\Projection\Lane\BoardLanes;
use Verjuicer\App\Site\People\CurrentAccount;
use Verjuicer\App\Site\Site\WallTime;
use Verjuicer\App\Work\Entry\Entry;
use Verjuicer\App\Work\Entry\EntryProblem;
use Verjuicer\Core\Food\Oven;
use Verjuicer\Core\Measure\Instant;
use Verjuicer\Core\Measure\Temperature;
use Verjuicer\Core\Record\Detail;
use Verjuicer\Core\Record\Event;
use Verjuicer\Core\Record\EventType;

/** Begins a batch: from a lot, so that weight and identity are not typed twice, or from the list of products. */
#[IsGranted('ROLE_CREW')]
#[Route('/batches/new')]
final class NewBatchController extends FormController
{
    private const HIGHEST_TAG = 999;
    private const MOST_PIECES = 500;

    public function __construct(
        private readonly Products $products,
        private readonly Lots $lots,
        private readonly Pits $pits,
        private readonly NewBatches $batches,
        private readonly BoardLanes $lanes,
        private readonly Thermometers $thermometers,
        private readonly CurrentAccount $account,
        private readonly Now $now,
    ) {
    }

    #[Route('', name: 'batch_new', methods: ['GET'])]
    public function form(Request $request): Response
    {
        $lot = $this->lots->find($this->account->get()->site, $request->query->getString('lot'));

        return $this->show($this->blank([
            'tag' => (string) $this->lowestFreeTag(),
            'lot' => $lot === null ? '' : $lot->lot->id->toRfc4122(),
            'pieces' => (string) ($lot->piecesLeft ?? 1),
            'weight_unit' => 'kg',
            'start' => 'prep',
        ]));
    }

    #[Route('', name: 'batch_begin', methods: ['POST'])]
    public function begin(Request $request): Response
    {
        $input = $this->read($request, 'new_batch');
        $site = $this->account->get()->site;
        $id = $input->id();
        $lot = $input->text('lot') === '' ? null : $this->lots->find($site, $input->text('lot'));
        $product = $lot->lot->product ?? $this->products->find($site, $input->text('product'));
        if ($product === null) {
            $input->refuse('product', 'new.problem.product');
        }
        $tag = $input->whole('tag', 1, self::HIGHEST_TAG, true);
        $pieces = $input->whole('pieces', 1, self::MOST_PIECES, true);
        $grams = $input->grams('weight') ?? $lot?->lot->gramsOfOne();
        $temperature = $input->temperature('temp', $site->unit);
        $hasAdvisory = $input->isOn('advisory');
        if ($hasAdvisory && !$site->mayUndercook()) {
            $input->refuse('form', 'new.problem.advisory');
        }
        $readyBy = $this->readyBy($input);
        $cook = $input->text('start') === 'cook' ? $this->cook($input) : null;
        if (!$input->isGood() || $product === null || $tag === null || $pieces === null) {
            return $this->show($input);
        }
        $plan = new BatchPlan($product, $tag, $pieces, $grams, $input->isOn('stuffed'), $input->isOn('wild'), $hasAdvisory, $lot?->lot);
        try {
            $batch = $this->batches->begin($id, $this->account->get(), $this->now->instant(), $plan, ...$this->firstEvents($input, $cook, $temperature, $product->spots[0]['name'] ?? Entry::SPOT, $readyBy));
        } catch (TagInUse) {
            $input->refuse('tag', 'new.problem.tag_in_use');

            return $this->show($input);
        } catch (TooLittleLeft) {
            $input->refuse('pieces', 'new.problem.too_little_left');

            return $this->show($input);
        }

        return $this->redirectToRoute('batch', ['id' => $batch->id->toRfc4122()], Response::HTTP_SEE_OTHER);
    }

    /** The cook, its oven and set point from the pit where one is named and they are not typed. */
    private function cook(FormInput $input): Event
    {
        $site = $this->account->get()->site;
        $now = $this->now->instant();
        $detail = new Detail\Cook($input->choice('oven', Oven::class), $input->temperature('set', $site->unit));
        $extras = [];
        if ($input->text('pit') !== '') {
            try {
                [$detail, $extras] = $this->pits->loaded($site, $input->text('pit'), $detail, $now);
            } catch (EntryProblem $problem) {
                $input->refuse('pit', $problem->key);
            }
        }

        return new Event(Uuid::v7()->toRfc4122(), $now, $this->account->get()->initials, EventType::Cook, $detail, unknown: $extras);
    }

    /** @return non-empty-list<Event> */
    private function firstEvents(FormInput $input, ?Event $cook, ?Temperature $temperature, string $spot, ?Instant $readyBy): array
    {
        $now = $this->now->instant();
        $by = $this->account->get()->initials;
        $event = static fn (EventType $type, Detail\Detail $detail, ?Instant $readyBy = null): Event => new Event(Uuid::v7()->toRfc4122(), $now, $by, $type, $detail, unknown: $readyBy === null ? [] : ['ready_by' => $readyBy->rfc3339()]);
        $events = [$cook ?? $event(EventType::Prep, Detail\Bare::of())];
        if ($input->isOn('injected')) {
            $events[] = $event(EventType::Inject, Detail\Bare::of());
        }
        if ($temperature !== null) {
            $thermometer = $input->text('thermometer');
            $events[] = $event(EventType::Reading, new Detail\Reading($temperature, 1, $spot, $thermometer === '' ? null : $thermometer));
        }
        if ($readyBy !== null) {
            $events[] = $event(EventType::Note, new Detail\Note(null), $readyBy);
        }

        return $events;
    }

    private function readyBy(FormInput $input): ?Instant
    {
        $given = $input->text('ready_by');
        $now = $this->now->instant();
        $at = $given === '' ? null : WallTime::parse($given, $this->account->get()->site->zone(), $now);
        if ($given !== '' && ($at === null || !$at->isAfter($now))) {
            $input->refuse('ready_by', 'new.problem.ready_by');
        }

        return $at;
    }

    private function show(FormInput $input): Response
    {
        $site = $this->account->get()->site;

        return $this->page('batch/new.html.twig', $input, [
            'site' => $site,
            'products' => $this->products->of($site),
            'lots' => $this->lots->available($site),
            'pits' => $this->pits->of($site),
            'thermometers' => $this->thermometers->labels($site),
            'ovens' => Oven::cases(),
            'tags' => $this->lanes->tagsInUse($site),
        ]);
    }

    private function lowestFreeTag(): int
    {
        $inUse = $this->lanes->tagsInUse($this->account->get()->site);
        $tag = 1;
        while (\in_array($tag, $inUse, true)) {
            ++$tag;
        }

        return $tag;
    }
}
