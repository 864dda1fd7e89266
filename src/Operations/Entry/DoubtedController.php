<?php

declare(strict_types=1);

namespace Verjuicer\App\Operations\Entry;

use Symfony\Component\HttpFoundation\Request;
use Symfony\Component\HttpFoundation\Response;
use Symfony\Component\Routing\Attribute\Route;
use Symfony\Component\Routing\Requirement\Requirement;
use Symfony\Component\Security\Http\Attribute\IsGranted;
use Symfony\Component\Uid\Uuid;
use Verjuicer\App\Ledger\Batch\Batch;
use Verjuicer\App\Ledger\Batch\Batches;
use Verjuicer\App\Ledger\Log\StoredRecords;
use Verjuicer\App\Platform\Form\FormController;
use Verjuicer\App\Platform\Form\FormInput;
use Verjuicer\App\Platform\Now;
use Verjuicer\App\Platform\Problem\Problem;
use Verjuicer\App\Platform\Problem\RedisplaysForm;
use Verjuicer\App\Site\People\CurrentAccount;
use Verjuicer\App\Site\Site\EventTimeParser;
use Verjuicer\Core\Assess\Evidence\Timeline;
use Verjuicer\Core\Assess\Evidence\TrackReading;
use Verjuicer\Core\Event\Kinds\Voided;

/**
 * Takes back what a misplaced probe read from one time to another: one entry, a correction of each reading, one reason.
 */
#[IsGranted('ROLE_CREW')]
#[Route('/batches/{id}/doubted', requirements: ['id' => Requirement::UUID])]
final class DoubtedController extends FormController implements RedisplaysForm
{
    public function __construct(
        private readonly Batches $batches,
        private readonly StoredRecords $records,
        private readonly RecordEntry $entry,
        private readonly EventTimeParser $happened,
        private readonly CurrentAccount $account,
        private readonly Now $now,
    ) {
    }

    #[Route('', name: 'doubted', methods: ['GET'])]
    public function show(string $id): Response
    {
        return $this->again($this->batches->get($id), $this->blank());
    }

    #[Route('', name: 'doubted_keep', methods: ['POST'])]
    public function keep(string $id, Request $request): Response
    {
        $batch = $this->batches->get($id);
        $input = $this->read($request, 'doubted');
        $range = $input->id();
        $track = $input->text('track', true);
        $reason = $input->text('reason', true);
        $from = $input->read('from', fn (string $given) => $this->happened->read($given, $batch->site));
        $to = $input->read('to', fn (string $given) => $this->happened->read($given, $batch->site));
        if ($from !== null && $to?->isAfter($from) === false) {
            $input->refuse('to', 'doubted.problem.order');
        }
        $readings =
            $from === null || $to === null
                ? []
                : array_filter(
                    $this->readings($batch),
                    static fn (TrackReading $one): bool => $one->track === $track
                        && $one->at >= $from->epoch
                        && $one->at <= $to->epoch,
                );
        if ($input->isGood() && $readings === []) {
            $input->refuse('from', 'doubted.problem.none');
        }
        if (!$input->isGood()) {
            return $this->again($batch, $input);
        }
        $now = $this->now->instant();
        $drafts = array_map(
            static fn (TrackReading $one): Draft => new Draft(
                Uuid::v5($range, $one->id),
                new Voided($range->toRfc4122()),
                $now,
                $reason,
                $one->id,
            ),
            array_values($readings),
        );
        $this->entry->keep($batch, $this->account->get(), true, ...$drafts);

        return $this->kept('doubted.kept', 'batch', ['id' => $id]);
    }

    public function showAgain(Request $request, Problem $problem): Response
    {
        return $this->again(
            $this->batches->get($request->attributes->getString('id')),
            $this->refused($request, $problem),
        );
    }

    /** @return list<TrackReading> */
    private function readings(Batch $batch): array
    {
        return Timeline::of($this->records->of($batch), $this->now->instant())->readings->all();
    }

    private function again(Batch $batch, FormInput $input): Response
    {
        $tracks = [];
        foreach ($this->readings($batch) as $reading) {
            $tracks[$reading->track][] = $reading;
        }

        return $this->page('operations/entry/doubted.html.twig', $input, [
            'batch' => $batch,
            'site' => $batch->site,
            'tracks' => $tracks,
        ]);
    }
}
