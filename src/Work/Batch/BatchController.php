<?php

declare(strict_types=1);

namespace Verjuicer\App\Work\Batch;

use Symfony\Bundle\FrameworkBundle\Controller\AbstractController;
use Symfony\Component\HttpFoundation\HeaderUtils;
use Symfony\Component\HttpFoundation\JsonResponse;
use Symfony\Component\HttpFoundation\Response;
use Symfony\Component\Routing\Attribute\Route;
use Symfony\Component\Routing\Requirement\Requirement;
use Verjuicer\App\Ledger\Batch\SiteBatches;
use Verjuicer\App\Ledger\Log\StoredRecords;
use Verjuicer\App\Platform\Now;
use Verjuicer\App\Platform\Wording\AssessmentJson;
use Verjuicer\Core\Record\Writer;

/** One batch, to read. */
#[Route('/batches/{id}', requirements: ['id' => Requirement::UUID], methods: ['GET'])]
final class BatchController extends AbstractController
{
    public function __construct(private readonly SiteBatches $batches, private readonly BatchPage $page)
    {
    }

    #[Route('', name: 'batch')]
    public function show(string $id): Response
    {
        return $this->page->respond($this->batches->get($id));
    }

    /** The part of the page that changes, for the script that keeps it current. */
    #[Route('/live', name: 'batch_live')]
    public function live(string $id, Now $now): Response
    {
        return $this->render('_live.html.twig', ['now' => $now->instant(), 'part' => $this->page->live($this->batches->get($id))], new Response(headers: ['Cache-Control' => 'no-store, private']));
    }

    /** The record in the open format, whole. */
    #[Route('/record.json', name: 'batch_record')]
    public function record(string $id, StoredRecords $records): Response
    {
        $batch = $this->batches->get($id);

        return new JsonResponse(Writer::write($records->of($batch)), json: true, headers: [
            'Content-Disposition' => HeaderUtils::makeDisposition(HeaderUtils::DISPOSITION_ATTACHMENT, $batch->code.'.json'),
        ]);
    }

    #[Route('/assessment.json', name: 'batch_assessment')]
    public function assessment(string $id, AssessmentJson $json): Response
    {
        return new JsonResponse($json->of($this->page->assess($this->batches->get($id))));
    }
}
