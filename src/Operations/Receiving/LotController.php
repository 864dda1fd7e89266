<?php

declare(strict_types=1);

namespace Verjuicer\App\Operations\Receiving;

use Symfony\Component\HttpFoundation\Request;
use Symfony\Component\HttpFoundation\Response;
use Symfony\Component\Routing\Attribute\Route;
use Symfony\Component\Routing\Requirement\Requirement;
use Symfony\Component\Security\Http\Attribute\IsGranted;
use Verjuicer\App\Ledger\Log\Ledger;
use Verjuicer\App\Ledger\Log\SiteLog;
use Verjuicer\App\Ledger\Lot\LotOnHand;
use Verjuicer\App\Ledger\Lot\Lots;
use Verjuicer\App\Operations\Entry\ReceivingCorrection;
use Verjuicer\App\Platform\Form\FormController;
use Verjuicer\App\Platform\Form\FormInput;
use Verjuicer\App\Platform\Problem\Problem;
use Verjuicer\App\Platform\Problem\RedisplaysForm;
use Verjuicer\App\Site\People\CurrentAccount;
use Verjuicer\App\Site\Site\EventTimeParser;
use Verjuicer\Core\Event\Kinds\Received;

/** One lot: how it came in, where it has been, what is left, and every batch it went into. */
#[Route('/lots/{lot}', requirements: ['lot' => Requirement::UUID])]
final class LotController extends FormController implements RedisplaysForm
{
    /** What can happen to a lot, as events of a batch are called. */
    private const MOVES = ['cold_hold', 'freeze', 'thaw', 'discard'];

    public function __construct(
        private readonly Lots $lots,
        private readonly SiteLog $log,
        private readonly Ledger $ledger,
        private readonly ReceivingCorrection $received,
        private readonly EventTimeParser $happened,
        private readonly CurrentAccount $account,
    ) {
    }

    #[Route('', name: 'lot', methods: ['GET'])]
    public function show(string $lot): Response
    {
        return $this->again($this->find($lot), $this->blank(['when' => $this->happened->now()]));
    }

    #[IsGranted('ROLE_CREW')]
    #[Route('', name: 'lot_move', methods: ['POST'])]
    public function move(string $lot, Request $request): Response
    {
        $onHand = $this->find($lot);
        $input = $this->read($request, 'lot');
        $id = $input->id();
        $type = $input->text('type', true);
        $at = $input->read('when', fn (string $given) => $this->happened->read($given, $onHand->lot->site));
        $words = ['place' => $input->text('place', most: 40), 'reason' => $input->text('reason')];
        $members = array_filter($words, static fn (string $text): bool => $text !== '');
        if (!\in_array($type, self::MOVES, true)) {
            $input->refuse('type', 'form.problem.choice');
        }
        if ($type === 'discard') {
            $members += $this->thrownAway($onHand, $input);
        }
        if (!$onHand->lot->isAccepted || ($onHand->piecesLeft === 0 && $type !== 'discard')) {
            $input->refuse('form', 'lot.problem.nothing_left');
        }
        if (!$input->isGood() || $at === null) {
            return $this->again($onHand, $input);
        }
        $this->log->add($id, 'lot', $onHand->lot->id, $this->account->get(), $at, $type, $members);

        return $this->kept('lot.kept', 'lot', ['lot' => $lot]);
    }

    /** The arrival was written down wrong: it is put right for the lot, and for every batch of it. */
    #[IsGranted('ROLE_CREW')]
    #[Route('/arrival', name: 'lot_put_right', methods: ['POST'])]
    public function putRight(string $lot, Request $request): Response
    {
        $onHand = $this->find($lot);
        $input = $this->read($request, 'lot');
        $id = $input->id();
        $temp = $input->temperature('temp', $onHand->lot->site->unit);
        $reason = $input->text('reason', true);
        if (!$input->isGood()) {
            return $this->again($onHand, $input);
        }
        $was = $onHand->arrival();
        $arrived = new Received($temp, $input->isOn('frozen'), $was->supplier, $was->lot, $was->thermometer);
        $by = $this->account->get();
        $this->ledger->write(
            $by->site,
            fn () => $this->received->putRight($id, $onHand->lot, $arrived, $onHand->at(), $reason, $by),
        );

        return $this->kept('lot.kept', 'lot', ['lot' => $lot]);
    }

    public function showAgain(Request $request, Problem $problem): Response
    {
        return $this->again($this->find($request->attributes->getString('lot')), $this->refused($request, $problem));
    }

    /** @return array{pieces: int, grams: int} */
    private function thrownAway(LotOnHand $onHand, FormInput $input): array
    {
        $pieces = $input->whole('pieces', 1, max(1, $onHand->piecesLeft), true) ?? 0;
        if ($input->text('reason') === '') {
            $input->refuse('reason', 'form.problem.required');
        }
        $isAll = $pieces === $onHand->piecesLeft;
        $grams = $isAll ? $onHand->gramsLeft : min($onHand->gramsLeft, $pieces * $onHand->lot->gramsOfOne());

        return ['pieces' => $pieces, 'grams' => $grams];
    }

    private function find(string $id): LotOnHand
    {
        return $this->lots->find($this->account->get()->site, $id) ?? throw $this->createNotFoundException();
    }

    private function again(LotOnHand $onHand, FormInput $input): Response
    {
        return $this->page('operations/receiving/lot.html.twig', $input, [
            'on_hand' => $onHand,
            'lot' => $onHand->lot,
            'site' => $onHand->lot->site,
            'batches' => $this->lots->batchesOf($onHand->lot),
            'moves' => self::MOVES,
        ]);
    }
}
