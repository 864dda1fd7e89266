<?php

declare(strict_types=1);

namespace Verjuicer\App\Operations\Due;

use Symfony\Component\HttpFoundation\Request;
use Symfony\Component\HttpFoundation\Response;
use Symfony\Component\Routing\Attribute\Route;
use Symfony\Component\Routing\Requirement\Requirement;
use Verjuicer\App\Ledger\Batch\Batches;
use Verjuicer\App\Platform\Form\FormController;
use Verjuicer\App\Site\People\CurrentAccount;

/** "I take it." */
final class ClaimController extends FormController
{
    public function __construct(
        private readonly Batches $batches,
        private readonly Claims $claims,
        private readonly CurrentAccount $account,
    ) {
    }

    #[Route('/batches/{id}/claim', name: 'claim', requirements: ['id' => Requirement::UUID], methods: ['POST'])]
    public function claim(string $id, Request $request): Response
    {
        $batch = $this->batches->get($id);
        $input = $this->read($request, 'claim');
        $rule = $input->text('rule', true, 60);
        if ($input->isGood()) {
            $this->claims->claim($batch, $rule, $this->account->get());
        }

        return $this->kept($input->isGood() ? 'due.taken' : 'entry.problem.expired', 'batch', ['id' => $id]);
    }
}
