<?php

declare(strict_types=1);

namespace Verjuicer\App\Work\Receiving;

use Symfony\Component\HttpFoundation\Request;
use Symfony\Component\HttpFoundation\Response;
use Symfony\Component\Routing\Attribute\Route;
use Symfony\Component\Routing\Requirement\Requirement;
use Symfony\Component\Security\Http\Attribute\IsGranted;
use Verjuicer\App\Ledger\Log\SiteLog;
use Verjuicer\App\Ledger\Lot\LotOnHand;
use Verjuicer\App\Ledger\Lot\Lots;
use Verjuicer\App\Platform\Form\FormController;
use Verjuicer\App\Platform\Form\FormInput;
use Verjuicer\App\Platform\Now;
use Verjuicer\App\Site\People\CurrentAccount;

/** One lot: how it came in, where it has been, what is left, and every batch it went into. */
#[Route('/lots/{lot}', requirements: ['lot' => Requirement::UUID])]
final class LotController extends FormController
{
    /** What can happen to a lot, as events of a batch are called. */
    private const MOVES = ['cold_hold', 'freeze', 'thaw', 'discard'];

    public function __construct(private readonly Lots $lots, private readonly SiteLog $log, private readonly CurrentAccount $account, private readonly Now $now)
    {
    }

    #[Route('', name: 'lot', methods: ['GET'])]
    public function show(string $lot): Response
    {
        return $this->view($this->find($lot), $this->blank());
    }

    #[IsGranted('ROLE_CREW')]
    #[Route('', name: 'lot_move', methods: ['POST'])]
    public function move(string $lot, Request $request): Response
    {
        $onHand = $this->find($lot);
        $input = $this->read($request, 'lot');
        $id = $input->id();
        $type = $input->text('type', true);
        $members = array_filter(['place' => $input->text('place', most: 40), 'reason' => $input->text('reason')], static fn (string $text): bool => $text !== '');
        if (!\in_array($type, self::MOVES, true)) {
            $input->refuse('type', 'form.problem.choice');
        }
        if ($type === 'discard') {
            $pieces = $input->whole('pieces', 1, max(1, $onHand->piecesLeft), true) ?? 0;
            if (!isset($members['reason'])) {
                $input->refuse('reason', 'form.problem.required');
            }
            $members += ['pieces' => $pieces, 'grams' => $pieces === $onHand->piecesLeft ? $onHand->gramsLeft : min($onHand->gramsLeft, $pieces * $onHand->lot->gramsOfOne())];
        }
        if (!$onHand->lot->isAccepted || ($onHand->piecesLeft === 0 && $type !== 'discard')) {
            $input->refuse('form', 'lot.problem.nothing_left');
        }
        if (!$input->isGood()) {
            return $this->view($onHand, $input);
        }
        $now = $this->now->instant();
        $this->log->add($id, 'lot', $onHand->lot->id, $this->account->get(), $now, $now, $type, $members);

        return $this->kept('lot.kept', 'lot', ['lot' => $lot]);
    }

    private function find(string $id): LotOnHand
    {
        return $this->lots->find($this->account->get()->site, $id) ?? throw $this->createNotFoundException();
    }

    private function view(LotOnHand $onHand, FormInput $input): Response
    {
        return $this->page('receiving/lot.html.twig', $input, ['on_hand' => $onHand, 'lot' => $onHand->lot, 'site' => $onHand->lot->site, 'batches' => $this->lots->batchesOf($onHand->lot), 'moves' => self::MOVES]);
    }
}
