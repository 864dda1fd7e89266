<?php

declare(strict_types=1);

namespace Verjuicer\App\EntryPoint\Api;

use Doctrine\ORM\EntityManagerInterface;
use Symfony\Bundle\FrameworkBundle\Controller\AbstractController;
use Symfony\Component\DependencyInjection\Attribute\Autowire;
use Symfony\Component\HttpFoundation\BinaryFileResponse;
use Symfony\Component\HttpFoundation\JsonResponse;
use Symfony\Component\HttpFoundation\Request;
use Symfony\Component\HttpFoundation\Response;
use Symfony\Component\Routing\Attribute\Route;
use Symfony\Component\Routing\Requirement\Requirement;
use Symfony\Component\Security\Http\Attribute\CurrentUser;
use Symfony\Component\Uid\Uuid;
use Verjuicer\App\Ledger\Assessment\Assessments;
use Verjuicer\App\Ledger\Batch\Batches;
use Verjuicer\App\Ledger\Log\StoredRecords;
use Verjuicer\App\Ledger\Lot\LotOnHand;
use Verjuicer\App\Ledger\Lot\Lots;
use Verjuicer\App\Operations\Due\Due;
use Verjuicer\App\Operations\Due\DueText;
use Verjuicer\App\Operations\Due\SiteDues;
use Verjuicer\App\Platform\Paging\PageKey;
use Verjuicer\App\Platform\Wording\AssessmentJson;
use Verjuicer\App\Site\Access\TokenHolder;
use Verjuicer\App\Site\Site\Site;
use Verjuicer\Core\Record\Writer;

/** Read-only API of a site, each client with its own token. */
#[Route('/api/v1', methods: ['GET'])]
final class ReadController extends AbstractController
{
    public function __construct(
        private readonly EntityManagerInterface $entities,
        private readonly BatchRows $rows,
        private readonly Batches $batches,
        private readonly Lots $lots,
        private readonly SiteDues $dues,
        private readonly DueText $text,
    ) {
    }

    /** Its description (OpenAPI 3.1). */
    #[Route('/openapi.json', name: 'api_document')]
    public function document(#[Autowire('%kernel.project_dir%/docs/api/openapi.json')] string $file): Response
    {
        return new BinaryFileResponse($file, headers: ['Content-Type' => 'application/json']);
    }

    #[Route('/batches', name: 'api_batches')]
    public function batches(Request $request, #[CurrentUser] TokenHolder $holder): Response
    {
        $page = $this->rows->latest(
            $holder->token->siteId,
            PageKey::parse($request->query->getString('after')),
            $request->query->getBoolean('open'),
        );

        return new JsonResponse(['batches' => $page->rows, 'next' => $page->next]);
    }

    #[Route('/batches/{id}/record', name: 'api_record', requirements: ['id' => Requirement::UUID])]
    public function record(string $id, StoredRecords $records): Response
    {
        return new JsonResponse(Writer::write($records->of($this->batches->get($id))), json: true);
    }

    #[Route('/batches/{id}/assessment', name: 'api_assessment', requirements: ['id' => Requirement::UUID])]
    public function assessment(string $id, Assessments $assessments, AssessmentJson $json): Response
    {
        return new JsonResponse($json->of($assessments->of($this->batches->get($id))));
    }

    #[Route('/lots', name: 'api_lots')]
    public function lots(Request $request, #[CurrentUser] TokenHolder $holder): Response
    {
        $page = $this->lots->latest($this->site($holder), PageKey::parse($request->query->getString('after')));

        return new JsonResponse([
            'lots' => array_map(static fn (LotOnHand $one): array => [
                'id' => $one->lot->id->toRfc4122(),
                'number' => $one->lot->number,
                'supplier' => $one->lot->supplier->name,
                'product' => $one->lot->product->name,
                'received_at' => $one->lot->at()->rfc3339(),
                'accepted' => $one->lot->isAccepted,
                'use_by' => $one->lot->useBy?->format('Y-m-d'),
                'pieces' => $one->lot->pieces,
                'pieces_left' => $one->piecesLeft,
                'weight_kg' => $one->lot->grams / 1000,
            ], $page->rows),
            'next' => $page->next,
        ]);
    }

    /** The due list of the board, late items first. */
    #[Route('/dues', name: 'api_dues')]
    public function dues(#[CurrentUser] TokenHolder $holder): Response
    {
        return new JsonResponse([
            'dues' => array_map(fn (Due $due): array => [
                'batch' => $due->lane->batchId,
                'tag' => $due->lane->tag,
                'product' => $due->lane->product,
                'rule' => $due->rule,
                'deadline' => $due->deadline?->rfc3339(),
                'late' => $due->isLate,
                'message' => $this->text->of($due),
            ], $this->dues->of($this->site($holder))),
        ]);
    }

    private function site(TokenHolder $holder): Site
    {
        return $this->entities->find(Site::class, Uuid::fromString($holder->token->siteId))
            ?? throw $this->createNotFoundException();
    }
}
