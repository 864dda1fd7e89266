<?php

declare(strict_types=1);

namespace Verjuicer\App\Reporting\Trends;

use Symfony\Component\HttpFoundation\Request;
use Symfony\Component\HttpFoundation\Response;
use Symfony\Component\Routing\Attribute\Route;
use Symfony\Component\Routing\Requirement\Requirement;
use Symfony\Component\Security\Http\Attribute\IsGranted;
use Verjuicer\App\Platform\Form\FormController;
use Verjuicer\App\Platform\Form\FormInput;
use Verjuicer\App\Projection\Forecast\Forecasts;
use Verjuicer\App\Projection\Learning\LearnedPriors;
use Verjuicer\App\Site\People\CurrentAccount;

/** Values learned from past cooks: view, ignore, use again. */
#[Route('/own-cooks')]
final class LearningController extends FormController
{
    public function __construct(
        private readonly LearnedPriors $priors,
        private readonly Forecasts $forecasts,
        private readonly CurrentAccount $account,
    ) {
    }

    #[Route('', name: 'own_cooks', methods: ['GET'])]
    public function list(): Response
    {
        return $this->view($this->blank());
    }

    #[IsGranted('ROLE_PITMASTER')]
    #[Route('/{id}/withdraw', name: 'own_cooks_withdraw', requirements: ['id' => Requirement::UUID], methods: ['POST'])]
    public function withdraw(string $id, Request $request): Response
    {
        $change = fn (): bool => $this->priors->withdraw($this->account->get(), $id);

        return $this->changed($id, $request, 'own_cooks.withdrawn', $change);
    }

    #[IsGranted('ROLE_PITMASTER')]
    #[Route('/{id}/hear', name: 'own_cooks_hear', requirements: ['id' => Requirement::UUID], methods: ['POST'])]
    public function hear(string $id, Request $request): Response
    {
        $change = fn (): bool => $this->priors->hearAgain($this->account->get(), $id);

        return $this->changed($id, $request, 'own_cooks.heard', $change);
    }

    /** @param \Closure(): bool $change of the version with this id */
    private function changed(string $id, Request $request, string $sentence, \Closure $change): Response
    {
        $its = array_column($this->priors->all($this->account->get()->site), 'id');
        if (!\in_array($id, $its, true)) {
            throw $this->createNotFoundException();
        }
        $input = $this->read($request, 'own_cooks');
        if (!$input->isGood()) {
            return $this->view($input);
        }
        // Who did it a moment ago already, finds it done.
        $change();
        $this->forecasts->forget();

        return $this->kept($sentence, 'own_cooks');
    }

    private function view(FormInput $input): Response
    {
        $site = $this->account->get()->site;

        return $this->page('reporting/trends/own_cooks.html.twig', $input, [
            'site' => $site,
            'subjects' => SubjectHistory::all($this->priors->all($site), $site->unit),
        ]);
    }
}
