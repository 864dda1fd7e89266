<?php

declare(strict_types=1);

namespace Verjuicer\App\Operations\Label;

use Symfony\Component\HttpFoundation\HeaderUtils;
use Symfony\Component\HttpFoundation\Request;
use Symfony\Component\HttpFoundation\Response;
use Symfony\Component\Process\Process;
use Symfony\Component\Routing\Attribute\Route;
use Symfony\Component\Routing\Requirement\Requirement;
use Symfony\Component\Security\Http\Attribute\IsGranted;
use Verjuicer\App\Ledger\Batch\Batches;
use Verjuicer\App\Platform\Form\FormController;
use Verjuicer\App\Platform\Paging\PageKey;
use Verjuicer\App\Site\People\CurrentAccount;

/** Labels: looked at, printed to the spool, or taken as SVG or PDF for plain paper. */
final class LabelController extends FormController
{
    private const PDF_SECONDS = 30;

    public function __construct(
        private readonly Batches $batches,
        private readonly Labels $labels,
        private readonly CurrentAccount $account,
    ) {
    }

    #[Route('/batches/{id}/label', name: 'label', requirements: ['id' => Requirement::UUID], methods: ['GET'])]
    public function show(string $id): Response
    {
        $batch = $this->batches->get($id);

        return $this->page('operations/label/label.html.twig', $this->blank(), [
            'batch' => $batch,
            'svg' => $this->labels->of($batch),
        ]);
    }

    #[IsGranted('ROLE_CREW')]
    #[Route('/batches/{id}/label', name: 'label_print', requirements: ['id' => Requirement::UUID], methods: ['POST'])]
    public function print(string $id, Request $request): Response
    {
        $batch = $this->batches->get($id);
        $input = $this->read($request, 'label');
        $label = $input->id();
        if (!$input->isGood()) {
            return $this->page('operations/label/label.html.twig', $input, [
                'batch' => $batch,
                'svg' => $this->labels->of($batch),
            ]);
        }
        $this->labels->print($label, $batch, $this->account->get());

        return $this->kept('label.kept', 'labels');
    }

    #[Route('/batches/{id}/label.svg', name: 'label_svg', requirements: ['id' => Requirement::UUID], methods: ['GET'])]
    public function svg(string $id): Response
    {
        $batch = $this->batches->get($id);

        return new Response(
            $this->labels->of($batch),
            headers: [
                'Content-Type' => 'image/svg+xml',
                'Content-Disposition' => HeaderUtils::makeDisposition(
                    HeaderUtils::DISPOSITION_ATTACHMENT,
                    'label-'.$batch->code.'.svg',
                ),
            ],
        );
    }

    #[Route('/batches/{id}/label.pdf', name: 'label_pdf', requirements: ['id' => Requirement::UUID], methods: ['GET'])]
    public function pdf(string $id): Response
    {
        $batch = $this->batches->get($id);
        $process = new Process(
            ['weasyprint', '-', '-'],
            null,
            null,
            $this->renderView('operations/label/paper.html.twig', ['svg' => $this->labels->of($batch)]),
            self::PDF_SECONDS,
        );
        $process->mustRun();

        return new Response(
            $process->getOutput(),
            headers: [
                'Content-Type' => 'application/pdf',
                'Content-Disposition' => HeaderUtils::makeDisposition(
                    HeaderUtils::DISPOSITION_ATTACHMENT,
                    'label-'.$batch->code.'.pdf',
                ),
            ],
        );
    }

    #[Route('/labels', name: 'labels', methods: ['GET'])]
    public function spool(Request $request): Response
    {
        $site = $this->account->get()->site;
        $after = PageKey::parse($request->query->getString('after'));

        return $this->render('operations/label/spool.html.twig', [
            'site' => $site,
            'page' => $this->labels->spool($site, $after),
        ]);
    }
}
