<?php

declare(strict_types=1);

namespace Verjuicer\App\Operations\Batch;

use Symfony\Bundle\FrameworkBundle\Controller\AbstractController;
use Symfony\Component\HttpFoundation\HeaderUtils;
use Symfony\Component\HttpFoundation\JsonResponse;
use Symfony\Component\HttpFoundation\Request;
use Symfony\Component\HttpFoundation\Response;
use Symfony\Component\Routing\Attribute\Route;
use Symfony\Component\Routing\Requirement\Requirement;
use Symfony\Component\Security\Http\Attribute\IsGranted;
use Verjuicer\App\Ledger\Assessment\Assessments;
use Verjuicer\App\Ledger\Batch\Batches;
use Verjuicer\App\Ledger\Log\StoredRecords;
use Verjuicer\App\Platform\Now;
use Verjuicer\App\Platform\Wording\AssessmentJson;
use Verjuicer\App\Projection\Lane\Lanes;
use Verjuicer\Core\Record\Writer;
use Verjuicer\Core\Ruleset\HouseLimits;
use Verjuicer\Core\Ruleset\RuleSetLibrary;

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

    /** All that can be done with it, each with its form. */
    #[Route('/steps', name: 'batch_steps')]
    #[IsGranted('ROLE_CREW')]
    public function steps(string $id, BatchPage $page): Response
    {
        return $page->steps($this->batches->get($id));
    }

    /** Everything that was written down of it, a page at a time, the latest first. */
    #[Route('/log', name: 'batch_log')]
    public function log(string $id, StoredRecords $records, RuleSetLibrary $rules, Request $request): Response
    {
        $batch = $this->batches->get($id);
        $late = $rules->get($batch->ruleSet)->get(HouseLimits::class)->lateEntry;
        $log = LogPage::of(RecordLog::of($records->of($batch), $late), $request->query->getString('after'));

        return $this->render('operations/batch/log.html.twig', [
            'batch' => $batch,
            'site' => $batch->site,
            'may_correct' => $this->isGranted('ROLE_CREW'),
            'log' => $log->rows,
            'more' => $log->more,
            'after' => $log->last(),
        ]);
    }

    /** The parts of the page that change, for the script that keeps it current. */
    #[Route('/live', name: 'batch_live')]
    public function live(string $id, Lanes $lanes, BatchParts $parts, Now $now): Response
    {
        $batch = $this->batches->get($id);

        return $this->render(
            'platform/_live.html.twig',
            ['now' => $now->instant(), 'parts' => $parts->changing($batch, $lanes->of($batch))],
            new Response(headers: ['Cache-Control' => 'no-store, private']),
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
