<?php

declare(strict_types=1);

namespace Verjuicer\App\Work\Round;

use Symfony\Component\HttpFoundation\Request;
use Symfony\Component\HttpFoundation\Response;
use Symfony\Component\Routing\Attribute\Route;
use Symfony\Component\Routing\Requirement\Requirement;
use Symfony\Component\Security\Http\Attribute\IsGranted;
use Symfony\Component\Uid\Uuid;
use Verjuicer\App\Catalogue\Product\Products;
use Verjuicer\App\Catalogue\Thermometer\Thermometers;
use Verjuicer\App\Ledger\Batch\Batch;
use Verjuicer\App\Ledger\Batch\SiteBatches;
use Verjuicer\App\Ledger\Log\EventConflict;
use Verjuicer\App\Ledger\Log\StoredRecords;
use Verjuicer\App\Platform\Form\FormController;
use Verjuicer\App\Platform\Form\FormInput;
use Verjuicer\App\Platform\Now;
use Verjuicer\App\Site\People\CurrentAccount;
use Verjuicer\App\Work\Entry\Entry;
use Verjuicer\App\Work\Entry\EntryForm;
use Verjuicer\App\Work\Entry\Journal;
use Verjuicer\Core\Assess\Evidence\Reading;
use Verjuicer\Core\Assess\Evidence\Timeline;
use Verjuicer\Core\Measure\Temperature;
use Verjuicer\Core\Record\EventType;

/** Reads a batch piece by piece and spot by spot: one number, Enter, the next. What was left out is named at the end. */
#[IsGranted('ROLE_CREW')]
#[Route('/batches/{id}/check', requirements: ['id' => Requirement::UUID])]
final class CheckRoundController extends FormController
{
    public function __construct(
        private readonly SiteBatches $batches,
        private readonly Products $products,
        private readonly StoredRecords $records,
        private readonly Thermometers $thermometers,
        private readonly Journal $journal,
        private readonly CurrentAccount $account,
        private readonly Now $now,
    ) {
    }

    #[Route('', name: 'check_round', methods: ['GET'])]
    public function show(string $id, Request $request): Response
    {
        $batch = $this->batches->get($id);
        $from = $request->query->getInt('from', $this->now->instant()->epoch);
        $at = $request->query->getInt('at');

        return $this->step($batch, $this->blank(['thermometer' => $request->query->getString('thermometer', $this->thermometers->lastUsedIn($batch) ?? '')]), $from, $at);
    }

    #[Route('', name: 'check_keep', methods: ['POST'])]
    public function keep(string $id, Request $request): Response
    {
        $batch = $this->batches->get($id);
        $input = $this->read($request, 'check');
        $from = $input->typed->getInt('from');
        $at = $input->typed->getInt('at');
        $stop = $this->stops($batch)[$at] ?? throw $this->createNotFoundException();
        $readings = [];
        foreach (['' => 'id', '2' => 'id2'] as $which => $idField) {
            $temp = $input->temperature('temp'.$which, $batch->site->unit, $which === '');
            if ($temp !== null) {
                $readings[] = [$input->id($idField), $this->reading($temp, $stop, $input->text('thermometer'.$which), $which === '' ? $input->text('feel') : '')];
            }
        }
        if (!$input->isGood()) {
            return $this->step($batch, $input, $from, $at);
        }
        foreach ($readings as [$uuid, $reading]) {
            if (!$input->isOn('sure') && $this->journal->doubts($batch, $reading) !== []) {
                $input->refuse('temp', 'round.doubt');

                return $this->step($batch, $input, $from, $at);
            }
        }
        try {
            foreach ($readings as [$uuid, $reading]) {
                $this->journal->keep($batch, $this->account->get(), $uuid, $reading);
            }
        } catch (EventConflict $conflict) {
            $input->refuse('form', $conflict->key);

            return $this->step($batch, $input, $from, $at);
        }

        return $this->redirectToRoute('check_round', ['id' => $id, 'from' => $from, 'at' => $at + 1, 'thermometer' => $input->text('thermometer')], Response::HTTP_SEE_OTHER);
    }

    /** @param array{piece: int, spot: string, where: string} $stop */
    private function reading(Temperature $temp, array $stop, string $thermometer, string $feel): Entry
    {
        $members = ['temp' => (object) [$temp->unit->member() => $temp->tenths / 10], 'piece' => $stop['piece'], 'spot' => $stop['spot']];
        $members += array_filter(['thermometer' => $thermometer, 'feel' => $feel], static fn (string $word): bool => $word !== '');

        return Entry::of(EventType::Reading, (object) $members, 0, null);
    }

    /** @return list<array{piece: int, spot: string, where: string}> every piece at every spot worth probing */
    private function stops(Batch $batch): array
    {
        $spots = $this->products->ofBatch($batch)->spots ?? [];
        $spots = $spots === [] ? [['name' => 'core', 'where' => '']] : $spots;
        $stops = [];
        for ($piece = 1; $piece <= $batch->pieces; ++$piece) {
            foreach ($spots as $spot) {
                $stops[] = ['piece' => $piece, 'spot' => $spot['name'], 'where' => $spot['where']];
            }
        }

        return $stops;
    }

    private function step(Batch $batch, FormInput $input, int $from, int $at): Response
    {
        $stops = $this->stops($batch);
        $read = [];
        $coldest = null;
        foreach (Timeline::of($this->records->of($batch), $this->now->instant())->readings as $reading) {
            if ($reading->at >= $from) {
                $read[$reading->track] = $reading;
            }
        }
        foreach ($read as $reading) {
            $coldest = $coldest instanceof Reading && !$coldest->temp->isHotterThan($reading->temp) ? $coldest : $reading;
        }
        $missed = array_values(array_filter($stops, static fn (array $stop): bool => !isset($read[$stop['piece'].'/'.$stop['spot']])));

        return $this->page('entry/round.html.twig', $input, [
            'batch' => $batch,
            'site' => $batch->site,
            'stop' => $stops[$at] ?? null,
            'at' => $at,
            'of' => \count($stops),
            'from' => $from,
            'read' => $read,
            'missed' => $missed,
            'coldest' => $coldest,
            'thermometers' => $this->thermometers->labels($batch->site),
            'second_id' => Uuid::v7()->toRfc4122(),
            'feels' => EntryForm::CHOICES['feel'],
        ]);
    }
}
