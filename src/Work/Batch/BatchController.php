<?php

declare(strict_types=1);

namespace Verjuicer\App\Work\Batch;

use Symfony\Bundle\FrameworkBundle\Controller\AbstractController;
use Symfony\Component\HttpFoundation\HeaderUtils;
use Symfony\Component\HttpFoundation\JsonResponse;
use Symfony\Component\HttpFoundation\Request;
use Symfony\Component\HttpFoundation\Response;
use Symfony\Component\Routing\Attribute\Route;
use Symfony\Component\Routing\Requirement\Requirement;
use Verjuicer\App\Ledger\Assessment\Assessments;
use Verjuicer\App\Ledger\Batch\Batches;
use Verjuicer\App\Ledger\Log\StoredRecords;
use Verjuicer\App\Platform\Now;
use Verjuicer\App\Platform\Wording\AssessmentJson;
use Verjuicer\App\Projection\Lane\Lanes;
use Verjuicer\Core\Record\Writer;

/** One batch, to read. */
#[Route('/batches/{id}', requirements: ['id' => Requirement::UUID], methods: ['GET'])]
final class BatchController extends AbstractController
{
    public function __construct(private readonly Batches $batches)
    {
    }

    #[Route('', name: 'batch')]
    public function show(string $id, BatchPage $page): Response
    {
        return $page->respond($this->batches->get($id));
    }

    /** The part of the page that changes, for the script that keeps it current. */
    #[Route('/live', name: 'batch_live')]
    public function live(string $id, Lanes $lanes, BatchParts $parts, Now $now, Request $request): Response
    {
        $batch = $this->batches->get($id);
        $lane = $lanes->of($batch);
        $part =
            $request->query->getString('part') === 'standing'
                ? $parts->standing($batch, $lane)
                : $parts->live($batch, $lane);
        $headers = ['Cache-Control' => 'no-store, private'];

        return $this->render(
            'platform/_live.html.twig',
            ['now' => $now->instant(), 'part' => $part],
            new Response(headers: $headers),
        );
    }

    /** The record in the open format, whole. */
    #[Route('/record.json', name: 'batch_record')]
    public function record(string $id, StoredRecords $records): Response
    {
        $batch = $this->batches->get($id);

        return new JsonResponse(
            Writer::write($records->of($batch)),
            json: true,
            headers: [
                'Content-Disposition' => HeaderUtils::makeDisposition(
                    HeaderUtils::DISPOSITION_ATTACHMENT,
                    $batch->code.'.json',
                ),
            ],
        );
    }

    #[Route('/assessment.json', name: 'batch_assessment')]
    public function assessment(string $id, Assessments $assessments, AssessmentJson $json): Response
    {
        return new JsonResponse($json->of($assessments->of($this->batches->get($id))));
    }
}
