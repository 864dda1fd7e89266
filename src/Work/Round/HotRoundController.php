<?php

declare(strict_types=1);

namespace Verjuicer\App\Work\Round;

use Doctrine\DBAL\Exception\UniqueConstraintViolationException;
use Doctrine\ORM\EntityManagerInterface;
use Symfony\Component\HttpFoundation\Request;
use Symfony\Component\HttpFoundation\Response;
use Symfony\Component\Routing\Attribute\Route;
use Symfony\Component\Security\Http\Attribute\IsGranted;
use Symfony\Component\Uid\Uuid;
use Verjuicer\App\Catalogue\Holding\HoldUnit;
use Verjuicer\App\Catalogue\Holding\HoldUnits;
use Verjuicer\App\Catalogue\Thermometer\Thermometers;
use Verjuicer\App\Ledger\Batch\SiteBatches;
use Verjuicer\App\Ledger\Log\EventConflict;
use Verjuicer\App\Platform\Form\FormController;
use Verjuicer\App\Platform\Form\FormInput;
use Verjuicer\App\Platform\Now;
use Verjuicer\App\Projection\Lane\BoardLanes;
use Verjuicer\App\Projection\Lane\Lane;
use Verjuicer\App\Site\People\CurrentAccount;
use Verjuicer\App\Work\Entry\Entry;
use Verjuicer\App\Work\Entry\Journal;
use Verjuicer\Core\Record\EventType;

/** All that is held hot, unit by unit, read in one pass: a column of numbers, one Keep. */
#[Route('/hot-round')]
final class HotRoundController extends FormController
{
    public function __construct(
        private readonly HoldUnits $units,
        private readonly BoardLanes $lanes,
        private readonly SiteBatches $batches,
        private readonly Journal $journal,
        private readonly Thermometers $thermometers,
        private readonly EntityManagerInterface $entities,
        private readonly CurrentAccount $account,
        private readonly Now $now,
    ) {
    }

    #[Route('', name: 'hot_round', methods: ['GET'])]
    public function show(): Response
    {
        $filled = [];
        foreach ($this->held() as $lane) {
            $filled['id'.$lane->tag] = Uuid::v7()->toRfc4122();
        }

        return $this->view($this->blank($filled));
    }

    #[IsGranted('ROLE_CREW')]
    #[Route('', name: 'hot_round_keep', methods: ['POST'])]
    public function keep(Request $request): Response
    {
        $input = $this->read($request, 'hot_round');
        $site = $this->account->get()->site;
        $thermometer = $input->text('thermometer');
        $readings = [];
        foreach ($this->held() as $lane) {
            $temp = $input->temperature('t'.$lane->tag, $site->unit);
            if ($temp !== null) {
                $members = ['temp' => (object) [$temp->unit->member() => $temp->tenths / 10]] + ($thermometer === '' ? [] : ['thermometer' => $thermometer]);
                $readings[] = [$lane, $input->id('id'.$lane->tag), $this->journal->completed($this->batches->get($lane->batchId), Entry::of(EventType::Reading, (object) $members, 0, null))];
            }
        }
        if ($readings === []) {
            $input->refuse('form', 'hothold.problem.nothing');
        }
        foreach ($readings as [$lane, , $reading]) {
            if (!$input->isOn('sure') && $this->journal->doubts($this->batches->get($lane->batchId), $reading) !== []) {
                $input->refuse('t'.$lane->tag, 'round.doubt');
            }
        }
        if (!$input->isGood()) {
            return $this->view($input);
        }
        try {
            foreach ($readings as [$lane, $id, $reading]) {
                $batch = $this->batches->get($lane->batchId);
                $this->journal->keep($batch, $this->account->get(), $id, $reading);
            }
        } catch (EventConflict $problem) {
            $input->refuse('form', $problem->key);

            return $this->view($input);
        }

        return $this->kept('hothold.kept', 'hot_round');
    }

    #[IsGranted('ROLE_PITMASTER')]
    #[Route('/units', name: 'hold_unit_add', methods: ['POST'])]
    public function add(Request $request): Response
    {
        $input = $this->read($request, 'hold_unit');
        $name = $input->text('name', true, 40);
        $kind = $input->text('kind', true);
        $minutes = $input->whole('minutes', 5, 240, true);
        if (!\in_array($kind, HoldUnit::KINDS, true)) {
            $input->refuse('kind', 'form.problem.choice');
        }
        if (!$input->isGood() || $minutes === null) {
            return $this->view($input);
        }
        $this->entities->persist(new HoldUnit($this->account->get()->site, $name, $kind, $minutes));
        try {
            $this->entities->flush();
        } catch (UniqueConstraintViolationException) {
            $input->refuse('name', 'form.problem.name_taken');

            return $this->view($input);
        }

        return $this->kept('hothold.added', 'hot_round');
    }

    /** @return list<Lane> by the unit they are in */
    private function held(): array
    {
        $held = array_values(array_filter($this->lanes->open($this->account->get()->site, $this->now->instant()), static fn (Lane $lane): bool => $lane->stage() === EventType::HotHold));
        usort($held, static fn (Lane $one, Lane $other): int => [$one->place ?? '', $one->tag] <=> [$other->place ?? '', $other->tag]);

        return $held;
    }

    private function view(FormInput $input): Response
    {
        $site = $this->account->get()->site;

        return $this->page('hothold/round.html.twig', $input, ['site' => $site, 'held' => $this->held(), 'units' => $this->units->of($site), 'kinds' => HoldUnit::KINDS, 'thermometers' => $this->thermometers->labels($site)]);
    }
}
