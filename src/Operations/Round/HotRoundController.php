<?php

declare(strict_types=1);

namespace Verjuicer\App\Operations\Round;

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
use Verjuicer\App\Ledger\Batch\Batches;
use Verjuicer\App\Ledger\Log\Ledger;
use Verjuicer\App\Operations\Entry\Draft;
use Verjuicer\App\Operations\Entry\RecordEntry;
use Verjuicer\App\Platform\Form\FormController;
use Verjuicer\App\Platform\Form\FormInput;
use Verjuicer\App\Platform\Problem\Problem;
use Verjuicer\App\Platform\Problem\RedisplaysForm;
use Verjuicer\App\Projection\Lane\Lane;
use Verjuicer\App\Projection\Lane\Lanes;
use Verjuicer\App\Site\People\CurrentAccount;
use Verjuicer\App\Site\Site\EventTimeParser;
use Verjuicer\Core\Event\EventKinds;
use Verjuicer\Core\Event\Kinds\HotHold;
use Verjuicer\Core\Event\Kinds\Reading;
use Verjuicer\Core\Food\Holding;
use Verjuicer\Core\Measure\Instant;

/** All that is held hot, unit by unit, read in one pass: a column of numbers, one Keep. */
#[Route('/hot-round')]
final class HotRoundController extends FormController implements RedisplaysForm
{
    public function __construct(
        private readonly HoldUnits $units,
        private readonly Lanes $lanes,
        private readonly Batches $batches,
        private readonly Ledger $ledger,
        private readonly RecordEntry $entry,
        private readonly Thermometers $thermometers,
        private readonly EntityManagerInterface $entities,
        private readonly EventTimeParser $happened,
        private readonly CurrentAccount $account,
    ) {
    }

    #[Route('', name: 'hot_round', methods: ['GET'])]
    public function show(Request $request): Response
    {
        $filled = ['when' => $this->happened->now(), 'unit' => $request->query->getString('unit')];
        foreach ($this->held() as $lane) {
            $filled['id'.$lane->tag] = Uuid::v7()->toRfc4122();
        }

        return $this->again($this->blank($filled));
    }

    #[IsGranted('ROLE_CREW')]
    #[Route('', name: 'hot_round_keep', methods: ['POST'])]
    public function keep(Request $request): Response
    {
        $input = $this->read($request, 'hot_round');
        $site = $this->account->get()->site;
        $at = $input->read('when', fn (string $given): Instant => $this->happened->read($given, $site));
        $isSent = $input->isGood();
        $drafts = $isSent && $at !== null ? $this->drafts($input, $at) : [];
        if ($input->isGood() && $drafts === []) {
            $input->refuse('form', 'hothold.problem.nothing');
        }
        $drafts = array_filter($drafts, fn (array $one): bool => $this->isPlausible($input, ...$one));
        $this->ledger->write($site, function () use ($drafts): void {
            foreach ($drafts as [$lane, $draft]) {
                $this->entry->keep($this->batches->get($lane->batchId), $this->account->get(), true, $draft);
            }
        });
        if ($input->isGood()) {
            return $this->kept('hothold.kept', 'hot_round');
        }
        // What was fine is saved, and asks for nothing more: one doubtful reading does not hold up the others.
        foreach ($drafts as [$lane]) {
            $input->typed->set('t'.$lane->tag, '');
            $input->typed->set('id'.$lane->tag, Uuid::v7()->toRfc4122());
        }

        return $this->again($input, \count($drafts));
    }

    /** Whether it can be kept as it is; what is wrong with it or asked about it stands at its field. */
    private function isPlausible(FormInput $input, Lane $lane, Draft $draft): bool
    {
        try {
            $doubts = $this->entry->doubts($this->batches->get($lane->batchId), $draft)[0] ?? [];
        } catch (Problem $problem) {
            $field = $problem->field === 'reason' ? 'reason' : 't'.$lane->tag;
            $input->refuse($field, $problem->key, $problem->values);

            return false;
        }
        if ($doubts === [] || $input->isOn('sure'.$lane->tag)) {
            return true;
        }
        $input->refuse('t'.$lane->tag, 'entry.sure.'.$doubts[0]->value, [
            '{unit}' => $this->account->get()->site->unit->value,
        ]);
        $input->typed->set('asks'.$lane->tag, '1');

        return false;
    }

    #[IsGranted('ROLE_PITMASTER')]
    #[Route('/units', name: 'hold_unit_add', methods: ['POST'])]
    public function add(Request $request): Response
    {
        $input = $this->read($request, 'hold_unit');
        $name = $input->text('name', true, 40);
        $kind = $input->choice('kind', Holding::class, true);
        $minutes = $input->whole('minutes', 5, 240, true);
        if ($kind !== null && !\in_array($kind, HoldUnit::KINDS, true)) {
            $input->refuse('kind', 'form.problem.choice');
        }
        if (!$input->isGood() || $kind === null || $minutes === null) {
            return $this->again($input);
        }
        $this->entities->persist(new HoldUnit($this->account->get()->site, $name, $kind, $minutes));
        try {
            $this->entities->flush();
        } catch (UniqueConstraintViolationException) {
            $input->refuse('name', 'form.problem.name_taken');

            return $this->again($input);
        }

        return $this->kept('hothold.added', 'hot_round');
    }

    public function showAgain(Request $request, Problem $problem): Response
    {
        return $this->again($this->refused($request, $problem));
    }

    /** @return list<array{Lane, Draft}> */
    private function drafts(FormInput $input, Instant $at): array
    {
        $thermometer = $input->text('thermometer');
        $reason = $input->text('reason');
        $drafts = [];
        foreach ($this->held() as $lane) {
            $temp = $input->temperature('t'.$lane->tag, $this->account->get()->site->unit);
            if ($temp !== null) {
                $reading = new Reading($temp, thermometer: $thermometer === '' ? null : $thermometer);
                $drafts[] = [
                    $lane,
                    new Draft(
                        $input->id('id'.$lane->tag),
                        $reading,
                        $at,
                        $reason === '' ? null : $reason,
                        isSpotOpen: true,
                        isPieceOpen: true,
                    ),
                ];
            }
        }

        return $drafts;
    }

    /** @return list<Lane> by the unit they are in */
    private function held(): array
    {
        $stage = EventKinds::of(HotHold::class)->name();
        $open = $this->lanes->open($this->account->get()->site)->lanes;
        $held = array_values(array_filter($open, static fn (Lane $lane): bool => $lane->stage() === $stage));
        usort(
            $held,
            static fn (Lane $one, Lane $other): int => [$one->place ?? '', $one->tag] <=> [
                $other->place ?? '',
                $other->tag,
            ],
        );

        return $held;
    }

    private function again(FormInput $input, int $saved = 0): Response
    {
        $site = $this->account->get()->site;

        return $this->page('operations/round/hot.html.twig', $input, [
            'saved' => $saved,
            'site' => $site,
            'held' => $this->held(),
            'units' => $this->units->of($site),
            'kinds' => HoldUnit::KINDS,
            'thermometers' => $this->thermometers->labels($site),
        ]);
    }
}
