<?php

declare(strict_types=1);

namespace Verjuicer\App\Operations\Round;

use Symfony\Component\HttpFoundation\Request;
use Symfony\Component\HttpFoundation\Response;
use Symfony\Component\Routing\Attribute\Route;
use Symfony\Component\Routing\Requirement\Requirement;
use Symfony\Component\Security\Http\Attribute\IsGranted;
use Symfony\Component\Uid\Uuid;
use Verjuicer\App\Catalogue\Product\Product;
use Verjuicer\App\Catalogue\Product\Products;
use Verjuicer\App\Catalogue\Thermometer\Thermometers;
use Verjuicer\App\Ledger\Batch\Batch;
use Verjuicer\App\Ledger\Batch\Batches;
use Verjuicer\App\Ledger\Batch\HeldPieces;
use Verjuicer\App\Ledger\Log\CheckpointedRecords;
use Verjuicer\App\Ledger\Log\LastReadings;
use Verjuicer\App\Operations\Entry\Draft;
use Verjuicer\App\Operations\Entry\RecordEntry;
use Verjuicer\App\Platform\Form\FormController;
use Verjuicer\App\Platform\Form\FormInput;
use Verjuicer\App\Platform\Now;
use Verjuicer\App\Platform\Problem\Problem;
use Verjuicer\App\Platform\Problem\RedisplaysForm;
use Verjuicer\App\Site\People\CurrentAccount;
use Verjuicer\App\Site\Site\EventTimeParser;
use Verjuicer\Core\Assess\Evidence\Timeline;
use Verjuicer\Core\Assess\Evidence\TrackReading;
use Verjuicer\Core\Event\Kinds;
use Verjuicer\Core\Food\Feel;
use Verjuicer\Core\Measure\Instant;

/**
 * Reads a batch piece by piece and spot by spot: one number, Enter, the next. What was left out is named at the end.
 */
#[IsGranted('ROLE_CREW')]
#[Route('/batches/{id}/check', requirements: ['id' => Requirement::UUID])]
final class CheckRoundController extends FormController implements RedisplaysForm
{
    public function __construct(
        private readonly Batches $batches,
        private readonly Products $products,
        private readonly CheckpointedRecords $records,
        private readonly LastReadings $lastReadings,
        private readonly HeldPieces $held,
        private readonly Thermometers $thermometers,
        private readonly RecordEntry $entry,
        private readonly EventTimeParser $happened,
        private readonly CurrentAccount $account,
        private readonly Now $now,
    ) {
    }

    #[Route('', name: 'check_round', methods: ['GET'])]
    public function show(string $id, Request $request): Response
    {
        $batch = $this->batches->get($id);
        $from = $request->query->getInt('from', $this->now->instant()->epoch);
        $thermometer = $request->query->has('thermometer')
            ? $request->query->getString('thermometer')
            : $this->lastReadings->thermometer($batch) ?? '';
        $filled = ['thermometer' => $thermometer, 'when' => $this->happened->now()];

        return $this->stop($batch, $this->blank($filled), $from, $request->query->getInt('at'));
    }

    #[Route('', name: 'check_keep', methods: ['POST'])]
    public function keep(string $id, Request $request): Response
    {
        $batch = $this->batches->get($id);
        $input = $this->read($request, 'check');
        $from = $input->typed->getInt('from');
        $place = $input->typed->getInt('at');
        $stop = $this->stops($batch)[$place] ?? throw $this->createNotFoundException();
        $at = $input->read('when', fn (string $given): Instant => $this->happened->read($given, $batch->site));
        $feel = $input->choice('feel', Feel::class);
        $reason = $input->text('reason');
        $drafts = [];
        foreach (['' => 'id', '2' => 'id2'] as $which => $idField) {
            $temp = $input->temperature('temp'.$which, $batch->site->unit, $which === '');
            $label = $input->text('thermometer'.$which);
            if ($temp !== null && $at !== null) {
                $thermometer = $label === '' ? null : $label;
                $reading = new Kinds\Reading(
                    $temp,
                    $stop['piece'],
                    $stop['spot'],
                    $thermometer,
                    $which === '' ? $feel : null,
                );
                $drafts[] = new Draft($input->id($idField), $reading, $at, $reason === '' ? null : $reason);
            }
        }
        if (!$input->isGood()) {
            return $this->stop($batch, $input, $from, $place);
        }
        $this->entry->keep($batch, $this->account->get(), $input->isOn('sure'), ...$drafts);
        $next = ['id' => $id, 'from' => $from, 'at' => $place + 1, 'thermometer' => $input->text('thermometer')];

        return $this->redirectToRoute('check_round', $next, Response::HTTP_SEE_OTHER);
    }

    public function showAgain(Request $request, Problem $problem): Response
    {
        $input = $this->refused($request, $problem);
        $batch = $this->batches->get($request->attributes->getString('id'));

        return $this->stop($batch, $input, $input->typed->getInt('from'), $input->typed->getInt('at'));
    }

    /** @return list<array{piece: int, spot: string, where: string}> every piece at every spot worth probing */
    private function stops(Batch $batch): array
    {
        $spots = $this->products->named($batch->site, $batch->productName)->spots ?? [];
        $spots = $spots === [] ? [['name' => Product::SPOT, 'where' => '']] : $spots;
        $held = $this->held->numbers($batch);
        if ($this->lastReadings->isOneMass($batch)) {
            return [['piece' => $held[0], 'spot' => Kinds\Reading::PAN, 'where' => '']];
        }
        $stops = [];
        foreach ($held as $piece) {
            foreach ($spots as $spot) {
                $stops[] = ['piece' => $piece, 'spot' => $spot['name'], 'where' => $spot['where']];
            }
        }

        return $stops;
    }

    private function stop(Batch $batch, FormInput $input, int $from, int $at): Response
    {
        $stops = $this->stops($batch);
        $read = [];
        $coldest = null;
        $record = $this->records->at($batch, Instant::ofEpoch($from));
        foreach (Timeline::of($record, $this->now->instant())->readings->all() as $reading) {
            if ($reading->at >= $from) {
                $read[$reading->track] = $reading;
            }
        }
        foreach ($read as $reading) {
            $coldest =
                $coldest instanceof TrackReading && !$coldest->temp->isHotterThan($reading->temp) ? $coldest : $reading;
        }

        return $this->page('operations/round/check.html.twig', $input, [
            'batch' => $batch,
            'site' => $batch->site,
            'stop' => $stops[$at] ?? null,
            'at' => $at,
            'of' => \count($stops),
            'from' => $from,
            'read' => $read,
            'missed' => array_values(
                array_filter($stops, static fn (array $one): bool => !isset($read[$one['piece'].'/'.$one['spot']])),
            ),
            'coldest' => $coldest,
            'thermometers' => $this->thermometers->labels($batch->site),
            'second_id' => Uuid::v7()->toRfc4122(),
            'feels' => Feel::cases(),
        ]);
    }
}
